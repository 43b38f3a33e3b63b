/** A curve that two views show stands in space where it is, is of its two outlines, and its plus-minus is true. */
import { createRandom } from '../calibrate/simulation';
import {
  type Direction,
  distance3,
  dot3,
  pointInSpace,
  subtract3,
  velocityInSpace,
  type SpacePiece,
  type Vec3,
} from '../space';
import {
  addFeature,
  addOutline,
  addSpaceCurve,
  changeSpaceCurve,
  removeFeature,
  removeOutlines,
  runCommand,
  setLiesAt,
  startHistory,
  type Command,
  type Job,
} from '../job';
import { drawnAt, type Drawn } from '../arrange/simulated';
import { benchOf, CLICK, FRONT, joining, NOISELESS, RIGHT, THING, TOP, ALL } from './bench-for-tests';
import { spaceBoundsOf } from '../formats';
import { applied } from '../geometry';
import { createDeriver, doubtOfCurve, drawingInSpace, drawnLookedAt, sizeInSpace, type StandingCurve } from '.';

/** An arm of the bench: it rises, bends forward and comes in, and never turns back across. mm */
const ARM: readonly Vec3[] = [
  [150, 60, 430],
  [340, 180, 560],
  [620, 330, 640],
  [900, 380, 655],
  [1250, 300, 600],
];

/** It as it is traced in a view, through its points. */
function traced(view: Drawn, points: readonly Vec3[], noise = NOISELESS, id = `${view.id}-arm`): Command {
  return addOutline({
    shape: 'chain',
    id,
    plane: view.id,
    layer: 'outline',
    closed: false,
    nodes: points.map((point, i) => {
      const [x, y] = drawnAt(view, point);
      const at = [x + CLICK * noise(), y + CLICK * noise()] as const;
      return { id: `${id}-${i}`, place: { kind: 'pointed' as const, at, sigma: CLICK }, smooth: true };
    }),
    segments: points.slice(1).map((_, i) => ({ id: `${id}-s${i}`, kind: 'curve' as const })),
  });
}

const armOf = (first: Drawn, second: Drawn) =>
  addSpaceCurve({ id: 'arm', name: 'Arm', of: [`${first.id}-arm`, `${second.id}-arm`] });
const withArm = (noise = NOISELESS, more: readonly Command[] = []): Job =>
  benchOf(noise, [...joining(...ALL), traced(FRONT, ARM, noise), traced(TOP, ARM, noise), armOf(FRONT, TOP), ...more]);
const derive = (job: Job) => createDeriver()(job);

function curveIn(job: Job): StandingCurve {
  const made = derive(job).spaceCurve('arm');
  if (!made?.ok) throw new Error(made?.code);
  return made.value;
}

/** The place on a curve that lies square to a direction through a place, sought closely. */
function placeAcross(pieces: readonly SpacePiece[], at: Vec3, towards: Vec3): Vec3 {
  const all = pieces.flatMap((piece) => Array.from({ length: 401 }, (_, i) => pointInSpace(piece, i / 400)));
  return all.reduce((best, place) =>
    Math.abs(dot3(subtract3(place, at), towards)) < Math.abs(dot3(subtract3(best, at), towards)) ? place : best,
  );
}

it('goes through the places that it was traced through, each where it is on the thing', () => {
  const { pieces, along, closed, missing } = curveIn(withArm());
  expect([along, closed, missing]).toEqual(['across', false, []]);
  for (const point of ARM) {
    const nearest = Math.min(
      ...pieces.flatMap((piece) =>
        Array.from({ length: 2001 }, (_, i) => distance3(pointInSpace(piece, i / 2000), point)),
      ),
    );
    // Scans that lie a little turned are pulled that much to lying level.
    expect(nearest).toBeLessThan(0.3);
  }
});

it('is the same from whichever two of the three views it is made, and from either first', () => {
  const lengthFrom = (first: Drawn, second: Drawn) => {
    const job = benchOf(NOISELESS, [
      ...joining(...ALL),
      ...ALL.map((view) => traced(view, [ARM[0]!, ARM[4]!])),
      armOf(first, second),
    ]);
    return doubtOfCurve(job.spaceCurves[0]!, job, derive(job))!.length.value;
  };
  const truth = distance3(ARM[0]!, ARM[4]!);
  for (const [first, second] of [
    [FRONT, TOP],
    [TOP, FRONT],
    [FRONT, RIGHT],
    [RIGHT, TOP],
  ] as const)
    expect(Math.abs(lengthFrom(first, second) - truth)).toBeLessThan(0.5);
});

it('is mirrored about a line that views share, and about none whose place is open', () => {
  const job = withArm();
  const about = (mirrored: string) =>
    curveIn(runCommand(startHistory(job), changeSpaceCurve({ ...job.spaceCurves[0]!, mirrored })).job);
  const { pieces, mirrored } = about('base');
  expect(mirrored).toHaveLength(pieces.length);
  mirrored!.forEach(({ a: [x, y, z] }, i) => {
    const [u, v, w] = pieces[i]!.a;
    expect([x, y, z]).toEqual([u, v, expect.closeTo(-w, 6)]);
  });
  // A place is no line to mirror about.
  expect(about('A').mirrored).toBeUndefined();
});

it('is kept while nothing that it is made of changes, and follows what does', () => {
  const deriver = createDeriver();
  const history = startHistory(withArm());
  const before = deriver(history.job).spaceCurve('arm');
  const beside = runCommand(history, traced(RIGHT, ARM, NOISELESS, 'beside'));
  expect(deriver(beside.job).spaceCurve('arm')).toBe(before);
  const nodes = (by: number) => {
    const outline = beside.job.outlines.find(({ id }) => id === 'plan-arm')!;
    if (outline.shape !== 'chain') throw new Error(outline.shape);
    return outline.nodes.map((node) =>
      node.place.kind === 'pointed'
        ? { ...node, place: { ...node.place, at: [node.place.at[0], node.place.at[1] + by] as const } }
        : node,
    );
  };
  const moved = {
    ...beside.job,
    outlines: beside.job.outlines.map((outline) =>
      outline.id === 'plan-arm' && outline.shape === 'chain' ? { ...outline, nodes: nodes(20) } : outline,
    ),
  };
  const after = deriver(moved).spaceCurve('arm');
  if (!before?.ok || !after?.ok) throw new Error('refused');
  // Twenty pixels down on a plan of 0.5 mm a pixel lie 10 mm farther to the front, and no higher.
  expect(subtract3(after.value.pieces[0]!.a, before.value.pieces[0]!.a)).toEqual([
    expect.closeTo(0, 1),
    expect.closeTo(-10, 1),
    expect.closeTo(0, 1),
  ]);
  expect(runCommand(startHistory(moved), removeOutlines(['plan-arm'])).job.spaceCurves).toEqual([]);
});

it.each<[string, string, Command[]]>([
  ['an outline of a view that does not stand', 'curve-view-apart', []],
  ['two outlines of one view', 'curve-sides-share-nothing', [...joining(...ALL), armOf(FRONT, FRONT)]],
])('%s makes none: %s', (_, code, more) => {
  const both = [traced(FRONT, ARM), traced(TOP, ARM), traced(FRONT, ARM, NOISELESS, 'again')];
  const of: [string, string] = code === 'curve-view-apart' ? ['front-arm', 'plan-arm'] : ['front-arm', 'again'];
  const job = benchOf(NOISELESS, [...both, ...more.slice(0, -1), addSpaceCurve({ id: 'arm', name: 'Arm', of })]);
  expect(derive(job).spaceCurve('arm')).toMatchObject({ ok: false, code });
  expect(doubtOfCurve(job.spaceCurves[0]!, job, derive(job))).toBeUndefined();
});

it('its plus-minus and that of its length are true', () => {
  const truth = withArm();
  const exact = curveIn(truth);
  const lengths: number[] = [];
  const offs: Record<Direction, number[]> = { across: [], deep: [], up: [] };
  for (let seed = 1; seed <= 80; seed++) {
    const { normal } = createRandom(900 + seed);
    const job = withArm(normal);
    const derived = derive(job);
    const doubt = doubtOfCurve(job.spaceCurves[0]!, job, derived)!;
    const made = derived.spaceCurve('arm');
    if (!made?.ok) throw new Error(made?.code);
    lengths.push((doubt.length.value - TRUE_LENGTH) / doubt.length.sigma);
    // At its middle places: its own sigma there, against how far the exact one passes.
    for (const k of [6, 12, 18]) {
      const { at, sigma } = doubt.along[k]!;
      const piece = made.value.pieces.reduce((best, other) =>
        distance3(other.a, at) < distance3(best.a, at) ? other : best,
      );
      const through = placeAcross(exact.pieces, at, velocityInSpace(piece, 0));
      const off = subtract3(at, through);
      offs.deep.push(off[1] / sigma[1]);
      offs.up.push(off[2] / sigma[2]);
    }
  }
  for (const normalized of [lengths, offs.deep, offs.up]) {
    const square = normalized.reduce((sum, value) => sum + value * value, 0) / normalized.length;
    const within = normalized.filter((value) => Math.abs(value) <= 2).length / normalized.length;
    expect(square).toBeGreaterThan(0.7);
    expect(square).toBeLessThan(1.4);
    expect(within).toBeGreaterThan(0.9);
  }
});
const TRUE_LENGTH = (() => {
  const job = withArm();
  return doubtOfCurve(job.spaceCurves[0]!, job, derive(job))!.length.value;
})();

it('what is drawn in a view lies where it is said to, along what the view does not show, and at zero without', () => {
  const seat: Command = addFeature({
    id: 'seat',
    name: 'Seat',
    along: 'up',
    said: { up: { value: 430, written: '430' } },
    seen: [],
  });
  const flat = traced(TOP, [THING.foot!, THING.end!]);
  const heights = (more: readonly Command[]) => {
    const job = benchOf(NOISELESS, [...joining(...ALL), flat, seat, ...more]);
    const drawing = drawingInSpace(job, derive(job));
    if (!drawing.ok) throw new Error(drawing.code);
    const { corner, size } = spaceBoundsOf(drawing.value)!;
    return [corner[2], size[2]];
  };
  expect(heights([])).toEqual([0, 0]);
  const [low, tall] = heights([setLiesAt('plan', 'seat')]);
  expect(low).toBeCloseTo(430, 6);
  expect(tall).toBeCloseTo(0, 6);
  // A place tells how high it is, too.
  expect(heights([setLiesAt('plan', 'B')])[0]).toBeCloseTo(THING.back![2], 0);
  // Where it is gone, or tells nothing along that, it is zero again.
  expect(heights([setLiesAt('plan', 'seat'), removeFeature('seat')])[0]).toBe(0);
  expect(heights([setLiesAt('plan', 'seat'), setLiesAt('plan', undefined)])[0]).toBe(0);
  const job = benchOf(NOISELESS, [...joining(...ALL), flat, seat, setLiesAt('plan', 'seat')]);
  const [looked] = drawnLookedAt({ job, derived: derive(job) }, { fold: 1, turn: 0, tip: 0 });
  // From the front a plan is edge-on, as high as it lies.
  expect([applied(looked!.look, [0, 0])[1], applied(looked!.look, [50, 80])[1]]).toEqual([
    expect.closeTo(430, 6),
    expect.closeTo(430, 6),
  ]);
});

it('how far what stands in space reaches is said with a plus-minus that is true, and without one where nothing is known of it', () => {
  const corner = (view: Drawn, noise: () => number) =>
    traced(view, [THING.foot!, THING.back!], noise, `${view.id}-diagonal`);
  const of = (noise: () => number) => benchOf(noise, [...joining(...ALL), corner(FRONT, noise), corner(TOP, noise)]);
  const off: number[] = [];
  for (let seed = 1; seed <= 80; seed++) {
    const job = of(createRandom(2000 + seed).normal);
    sizeInSpace(job, derive(job)).forEach((size, axis) => off.push((size!.value - THING.back![axis]!) / size!.sigma));
  }
  const square = off.reduce((sum, value) => sum + value * value, 0) / off.length;
  expect(square).toBeGreaterThan(0.7);
  expect(square).toBeLessThan(1.35);
  const within = off.filter((value) => Math.abs(value) <= 2).length / off.length;
  expect(within).toBeGreaterThan(0.9);
  const job = of(NOISELESS);
  const drawing = drawingInSpace(job, derive(job));
  if (!drawing.ok) throw new Error(drawing.code);
  spaceBoundsOf(drawing.value)!.size.forEach((mm, axis) =>
    expect(sizeInSpace(job, derive(job))[axis]!.value).toBeCloseTo(mm, 6),
  );
  expect(sizeInSpace(benchOf(), derive(benchOf()))).toEqual([undefined, undefined, undefined]);
  // Of a curve in space more would have to be known.
  expect(sizeInSpace(withArm(), derive(withArm()))).toEqual([undefined, undefined, undefined]);
});
