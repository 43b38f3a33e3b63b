import { listTurnedRound } from '../core/arrange';
import { fitOf, toldOf, toldOfScene } from '../core/derive';
import type { FitOperations } from './fit-operations';
import { serve } from './serve';

serve<FitOperations>({
  // Which view owns the evidence is told by identity, which a message does not keep.
  judge: async ({ view, sheet, owner }) => toldOf(fitOf(view, sheet, owner.id === view.id ? view : owner)),
  together: async (scene) => toldOfScene(scene),
  turnedRound: async (scene) => listTurnedRound(scene),
});
