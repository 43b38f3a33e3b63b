/** Ends of what is drawn, proposed as lines that views share: where they are, which are there already, and where they cannot be the same. */
import { addFeature, addOutline, setLookOnly, type Command, type Job } from '../job';
import { distance } from '../geometry';
import { jobOf } from '../job/for-tests';
import { drawnAt, type Drawn } from '../arrange/simulated';
import type { Outline } from '../outline';
import { axesSeenFrom, DIRECTIONS, type Direction, type Vec3 } from '../space';
import { ALL, FRONT, joining, NOISELESS, RIGHT, shown, sized, TOP, zero } from './bench-for-tests';
import { createDeriver, listProposedLines, type ProposedLine } from '.';

/** The thing's box, mm. */
const BOX: Vec3 = [1400, 520, 860];
const SIGMA = 0.5;

/** A closed outline through places of the thing, as a view shows them. */
function traced(view: Drawn, id: string, corners: readonly Vec3[], layer = 'outline'): Command {
  const nodes = corners.map((corner, i) => ({
    id: `${id}-${i}`,
    place: { kind: 'pointed' as const, at: drawnAt(view, corner), sigma: SIGMA },
    smooth: false,
  }));
  const segments = nodes.map(() => ({ kind: 'line' as const }));
  return addOutline({ shape: 'chain', id, plane: view.id, layer, closed: true, nodes, segments } as Outline);
}

/** The rectangle that a view shows of the box, grown along a direction at its far end. */
function rectangle(view: Drawn, along?: Direction, by = 0): Command {
  const [right, up] = axesSeenFrom(view.side).map(({ direction }) => DIRECTIONS.indexOf(direction)) as [number, number];
  const far = BOX.map((mm, axis) => mm + (DIRECTIONS[axis] === along ? by : 0));
  const corner = (a: number, b: number) =>
    [0, 1, 2].map((axis) => (axis === right ? a * far[axis]! : axis === up ? b * far[axis]! : 0)) as unknown as Vec3;
  return traced(view, `box-${view.id}`, [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)]);
}

const bare = (...more: readonly Command[]): Job =>
  jobOf([...ALL.flatMap(shown), sized(FRONT, 'foot', 'end', 1, NOISELESS), ...more]);
const proposed = (job: Job) => listProposedLines(job, createDeriver()(job));
const nameOf = ({ along, end }: Pick<ProposedLine, 'along' | 'end'>) => `${along} ${end}`;

/** Takes every proposal, as somebody does who takes all. */
const takenFrom = (lines: readonly ProposedLine[]): Command[] =>
  lines.map((line) =>
    addFeature({
      id: nameOf(line),
      name: nameOf(line),
      along: line.along,
      said: line.end === 'least' ? { [line.along]: zero } : {},
      seen: line.seen.map((seen, i) => ({ ...seen, id: `${nameOf(line)} ${i}` })),
    }),
  );

it('a box that is traced in three views ends in six lines; taken, they make the views agree, and nothing more is proposed', () => {
  const job = bare(...ALL.map((view) => rectangle(view)));
  const lines = proposed(job);
  expect(lines.map(nameOf)).toEqual(['up least', 'up most', 'across least', 'across most', 'deep least', 'deep most']);
  for (const { feature, seen, agrees } of lines) {
    expect([feature, agrees, seen.length]).toEqual([undefined, true, 4]);
    expect(new Set(seen.map(({ sigma }) => sigma))).toEqual(new Set([SIGMA]));
  }
  const whole = jobOf([
    ...ALL.flatMap(shown),
    sized(FRONT, 'foot', 'end', 1, NOISELESS),
    ...ALL.map((view) => rectangle(view)),
    ...takenFrom(lines),
    ...joining(...ALL),
  ]);
  const { arranged } = createDeriver()(whole);
  expect([...arranged.stands.keys()].sort()).toEqual(ALL.map(({ id }) => id).sort());
  DIRECTIONS.forEach((along, axis) =>
    expect(arranged.coordinate(`${along} most`, along)!.value).toBeCloseTo(BOX[axis]!, 1),
  );
  expect(proposed(whole)).toEqual([]);
});

it('what one view says already is said of the others: the same line, and only where it is missing', () => {
  const base = addFeature({
    id: 'floor',
    name: 'Floor',
    along: 'up',
    said: { up: zero },
    seen: [{ id: 'floor-1', view: FRONT.id, at: drawnAt(FRONT, [300, 0, 0]), sigma: 1 }],
  });
  const job = bare(rectangle(FRONT), rectangle(RIGHT), base);
  const [floor, top] = proposed(job);
  expect([floor!.feature, floor!.seen.map(({ view }) => view)]).toEqual(['floor', [RIGHT.id, RIGHT.id]]);
  expect([top!.feature, new Set(top!.seen.map(({ view }) => view)).size]).toEqual([undefined, 2]);
});

it('a view that shows that line elsewhere is not asked to show it at its end', () => {
  const floor = addFeature({
    id: 'floor',
    name: 'Floor',
    along: 'up',
    said: { up: zero },
    seen: [
      { id: 'floor-1', view: FRONT.id, at: drawnAt(FRONT, [300, 0, 0]), sigma: 1 },
      { id: 'floor-2', view: RIGHT.id, at: drawnAt(RIGHT, [0, 200, 120]), sigma: 1 },
    ],
  });
  expect(proposed(bare(rectangle(FRONT), rectangle(RIGHT), floor)).map(nameOf)).toEqual(['up most']);
});

it('where something reaches farther in one view than in another of its own scale, that is said', () => {
  const [handle, cushion] = [60, 1];
  const both = (by: number) =>
    proposed(bare(sized(RIGHT, 'foot', 'back', 1, NOISELESS), rectangle(FRONT), rectangle(RIGHT, 'up', by))).filter(
      ({ along }) => along === 'up',
    );
  for (const { agrees, reaches } of both(handle)) {
    expect(agrees).toBe(false);
    expect(Math.abs(reaches[0]!.value - BOX[2])).toBeLessThan(1);
    expect(Math.abs(reaches[1]!.value - BOX[2] - handle)).toBeLessThan(1);
  }
  // As much as pointing explains is the same.
  expect(both(cushion).map(({ agrees }) => agrees)).toEqual([true, true]);
});

it('a round thing ends where its rim does', () => {
  const pot = (view: Drawn): Command => {
    const at = (point: Vec3) => ({ kind: 'pointed' as const, at: drawnAt(view, point), sigma: SIGMA });
    const by = { kind: 'two', a: at([200, 100, 0]), b: at([200, 500, 0]) };
    return addOutline({ shape: 'circle', id: 'pot', plane: view.id, layer: 'outline', by } as Outline);
  };
  const lines = proposed(bare(rectangle(FRONT), pot(TOP)));
  expect(lines.map(nameOf)).toEqual(['across least', 'across most']);
  const [left, right] = lines.map(({ seen }) => seen.find(({ view }) => view === TOP.id)!.at);
  [left, right].forEach((at, i) => {
    const truly = drawnAt(TOP, [i === 0 ? 0 : 400, 300, 0]);
    expect(distance(at!, truly)).toBeLessThan(1.5);
  });
});

it('what is hidden, only looked at, or drawn in one view alone proposes nothing', () => {
  const two = [rectangle(FRONT), rectangle(RIGHT)];
  expect(proposed(bare(...two)).length).toBe(2);
  expect(proposed(bare(two[0]!))).toEqual([]);
  expect(proposed(bare(...two, setLookOnly(RIGHT.id, true)))).toEqual([]);
  const hidden = bare(...two);
  const layers = hidden.layers.map((layer) => ({ ...layer, show: false }));
  expect(proposed({ ...hidden, layers })).toEqual([]);
});
