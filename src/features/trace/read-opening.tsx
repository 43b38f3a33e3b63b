import { useMemo } from 'react';
import { Button } from 'react-native-paper';
import { asKind } from '@/bench/tools';
import type { Measured } from '@/core/adjust';
import { useDesk, useJob } from '@/bench/use-session';
import {
  asRead,
  listOpenings,
  offFromRead,
  readOpening,
  sizesRead,
  type OpeningRead,
  type OpeningRow,
} from '@/core/derive';
import { changeOpenings, type Job } from '@/core/job';
import { openingsOf, type Opening, type Outline } from '@/core/outline';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';

/** Less an opening and what it was read from do not differ. mm */
const ALIKE = 1;

/** An outline of an elevation as an opening of the wall that it lies in, in plan and elevation alike. */
export function ReadOpeningCard({ outline }: { outline: Outline }) {
  const job = useJob((whole) => whole.job);
  const derived = useJob((whole) => whole.derived);
  const row = listOpenings(job).find(({ opening }) => opening.read === outline.id);
  const read = useMemo(() => readOpening(outline, { job, derived }), [outline, job, derived]);
  if (row) return <ReadElsewhere row={row} />;
  return read.ok ? <NewOpening outline={outline} read={read.value} /> : null;
}

/** What the plane of an outline is called: the first view that shows it. */
function usePlaceName(): (plane: string | undefined) => string {
  const views = useJob(({ job }) => job.views);
  return (of) => views.find(({ plane }) => plane === of)?.name ?? '';
}

const isLocked = ({ layers }: Pick<Job, 'layers'>, wall: Outline | undefined): boolean =>
  layers.some(({ id, lock }) => lock && id === wall?.layer);

function NewOpening({ outline, read }: { outline: Outline; read: OpeningRead }) {
  const { jobs, session } = useDesk();
  const units = useUnits();
  const nameOf = usePlaceName();
  const wall = jobs.getState().job.outlines.find(({ id }) => id === read.wall);
  const { width, sill = 0, head } = read.stands;
  const job = useJob((whole) => whole.job);
  const derived = useJob((whole) => whole.derived);
  const sizes = useMemo(() => sizesRead(outline, { job, derived }), [outline, job, derived]);
  const size = (value: number, known: Measured | undefined) => formatLength(value, units, known?.sigma);
  const from = sill === 0 ? 'the floor' : size(sill, sizes?.low);
  const make = () => {
    const kind = sill === 0 ? 'door' : 'window';
    const { fill } = asKind({ ...read.stands, id: '' }, kind);
    const opening: Opening = { id: newId(), ...read.stands, fill, read: outline.id };
    jobs.getState().run(changeOpenings(read.wall, [...openingsOf(wall), opening], 'opening-read', newId));
    session.say(session.isReadOnly() ? 'read-only' : 'opening-made', { view: nameOf(wall?.plane) });
  };
  return (
    <Card testID="opening-offer">
      <Words style={{ fontSize: 14, lineHeight: 19 }}>
        {`It lies in a wall of ${nameOf(wall?.plane)}: ${size(width, sizes?.width)} wide, from ${from} ${head === undefined ? 'down' : `to ${size(head, sizes?.high)} above ${sill === 0 ? 'it' : 'the floor'}`}.`}
      </Words>
      {isLocked(job, wall) ? (
        <Words quiet>Its layer is locked. Unlock it, and the opening can be made.</Words>
      ) : (
        <Button mode="outlined" compact onPress={make} testID="opening-read">
          Make it an opening of that wall
        </Button>
      )}
    </Card>
  );
}

/** Whether an opening of the plan and the outline that it was read from are still alike, and making them so. */
export function ReadElsewhere({ row: { wall, opening, mark } }: { row: OpeningRow }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const nameOf = usePlaceName();
  const job = useJob((whole) => whole.job);
  const derived = useJob((whole) => whole.derived);
  const outline = job.outlines.find(({ id }) => id === opening.read);
  const read = useMemo(() => outline && readOpening(outline, { job, derived }), [outline, job, derived]);
  if (!outline || !read) return null;
  const [plan, elevation] = [nameOf(wall.plane), nameOf(outline.plane)];
  const off = read.ok ? offFromRead(opening, wall.id, read.value) : Infinity;
  const take = () => {
    if (!read.ok) return;
    const openings = openingsOf(wall).map((other) => (other.id === opening.id ? asRead(other, read.value) : other));
    jobs.getState().run(changeOpenings(wall.id, openings, 'opening-read', newId));
  };
  const isSame = off <= ALIKE;
  return (
    <Card testID="opening-elsewhere">
      <Words style={{ fontSize: 14, lineHeight: 19 }}>
        {isSame
          ? `${mark} in ${plan} is as it is drawn in ${elevation}.`
          : off < Infinity
            ? `${mark} in ${plan} is not as it is drawn in ${elevation}: a side of it is off by ${formatLength(off, units)}.`
            : `${mark} in ${plan} is no longer where it is drawn in ${elevation}.`}
      </Words>
      {!isSame && read.ok && read.value.wall === wall.id && !isLocked(job, wall) ? (
        <Button mode="outlined" compact onPress={take} testID="opening-again">
          {`Take it over from ${elevation}`}
        </Button>
      ) : null}
    </Card>
  );
}
