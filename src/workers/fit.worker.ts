import { listTurnedRound } from '../core/arrange';
import {
  deriveAsTold,
  fitOf,
  judgeSaid,
  proposeOn,
  takeTogether,
  toldOf,
  toldOfScene,
  type ToldJob,
} from '../core/derive';
import type { FitOperations } from './fit-operations';
import type { RelateOperations } from './relate-operations';
import { serve } from './serve';

const known = (told: ToldJob) => ({ job: told.job, derived: deriveAsTold(told) });

serve<FitOperations & RelateOperations>({
  // Which view owns the evidence is told by identity, which a message does not keep.
  judge: async ({ view, sheet, owner }) => toldOf(fitOf(view, sheet, owner.id === view.id ? view : owner)),
  together: async (scene) => toldOfScene(scene),
  turnedRound: async (scene) => listTurnedRound(scene),
  propose: async ({ told, plane, only }) => proposeOn(plane, known(told), only),
  take: async ({ told, plane, wanted }) => takeTogether(wanted, plane, known(told)),
  judgeSaid: async ({ told, relation }) => judgeSaid(relation, known(told)),
});
