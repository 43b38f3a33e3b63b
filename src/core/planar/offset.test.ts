/** Offsets of random drawings, judged by many places: each lies where its distance says, or the work is refused. */
import { createRandom } from '../calibrate/simulation';
import {
  distance,
  enclosedArea,
  nearestOn,
  pieceLength,
  perpendicular,
  pointAt,
  tangentAt,
  windingNumber,
  type Piece,
  type Vec,
} from '../geometry';
import { drawRing } from './random-drawing';
import { offsetClosed, offsetOpen, strip } from '.';

const LIMITS = { corners: 'round', precision: 0.001, tolerance: 1e-6 } as const;
const awayFrom = (pieces: readonly Piece[], at: Vec) =>
  Math.min(Infinity, ...pieces.map((piece) => nearestOn(piece, at).distance));
const refusals = { closed: 0, open: 0 };

/** What is wrong with what lies within a ring by a distance; nothing where it is right. */
function faultWithin(seed: number, flattest: number): string | undefined {
  const { uniform } = createRandom(seed);
  const ring = drawRing(uniform, flattest);
  const by = 0.5 + 12 * uniform();
  const shrunk = offsetClosed([{ closed: true, pieces: ring }], -by, LIMITS);
  if (!shrunk.ok) return void refusals.closed++;
  for (const { pieces } of shrunk.value) {
    const gap = Math.max(
      ...pieces.map((piece, i) => distance(pointAt(piece, 1), pointAt(pieces[(i + 1) % pieces.length]!, 0))),
    );
    if (gap > 2 * LIMITS.tolerance) return `${seed}: a gap of ${gap}`;
  }
  const rims = shrunk.value.flatMap(({ pieces }) => pieces);
  for (let k = 0; k < 60; k++) {
    const at: Vec = [(uniform() - 0.5) * 120, (uniform() - 0.5) * 120];
    const [away, winding] = [awayFrom(ring, at), windingNumber(ring, at)];
    if (Math.abs(away - by) < 0.01 || away < 0.01 || winding < 0 || winding > 1) continue;
    const isWithin = rims.length > 0 && windingNumber(rims, at) > 0;
    if (isWithin !== (winding > 0 && away > by))
      return `${seed}: ${at.join(' ')}, ${away} from the ring, by ${by}, ${isWithin ? 'is' : 'is not'} within`;
  }
  return undefined;
}

/** What is wrong with what lies beside an open path: nearer than it is told, or not all of it. */
function faultBeside(seed: number): string | undefined {
  const { uniform } = createRandom(seed);
  const path = drawRing(uniform).slice(0, -1);
  const by = (uniform() < 0.5 ? -1 : 1) * (0.5 + 12 * uniform());
  const beside = offsetOpen({ closed: false, pieces: path }, by, LIMITS);
  if (!beside.ok) return void refusals.open++;
  const found = beside.value.flatMap(({ pieces }) => pieces);
  const off = found
    .flatMap((piece) => Array.from({ length: 9 }, (_, k) => awayFrom(path, pointAt(piece, k / 8)) - Math.abs(by)))
    .find((miss) => Math.abs(miss) > 0.002);
  if (off !== undefined) return `${seed}: ${off} off where it should be ${by} away`;
  for (let k = 0; k < 30; k++) {
    const piece = path[Math.floor(uniform() * path.length)]!;
    const t = 0.02 + 0.96 * uniform();
    const [at, aside] = [pointAt(piece, t), perpendicular(tangentAt(piece, t))];
    const there: Vec = [at[0] - by * aside[0], at[1] - by * aside[1]];
    if (awayFrom(path, there) > Math.abs(by) - 1e-6 && awayFrom(found, there) > 0.01)
      return `${seed}: nothing at ${there.join(' ')}`;
  }
  return undefined;
}

const seeds = (count: number) => Array.from({ length: count }, (_, i) => i + 1);

it('what lies within a ring lies there, wherever one looks', () =>
  expect(
    seeds(300)
      .map((seed) => faultWithin(seed, -6))
      .filter(Boolean),
  ).toEqual([]));

it('so it does where arcs are all but lines', () => {
  expect(
    seeds(300)
      .map((seed) => faultWithin(seed, -9))
      .filter(Boolean),
  ).toEqual([]);
  expect(refusals.closed).toBeLessThanOrEqual(2);
});

it('what lies beside an open path is nowhere nearer to it, its ends included, and nothing of it is left out', () => {
  expect(seeds(400).map(faultBeside).filter(Boolean)).toEqual([]);
  expect(refusals.open).toBeLessThanOrEqual(1);
});

it.each([
  ['beside curves that would also cross beyond their ends', () => faultBeside(2801)],
  ['beside an arc whose middle lies 600 m away', () => faultBeside(17791)],
  ['within lines that turn by a hundred-thousandth', () => faultWithin(8240, -6)],
])('what was found wrong among 50,000 is right, or refused: %s', (_, fault) => expect(fault()).toBeUndefined());

/** A convex polygon on the corners of a circle. */
function convex(uniform: () => number): readonly Piece[] {
  const turns = Array.from({ length: 3 + Math.floor(5 * uniform()) }, () => 2 * Math.PI * uniform()).sort(
    (a, b) => a - b,
  );
  return turns.map((turn, i): Piece => ({
    kind: 'line',
    a: [30 * Math.cos(turn), 30 * Math.sin(turn)],
    b: [30 * Math.cos(turns[(i + 1) % turns.length]!), 30 * Math.sin(turns[(i + 1) % turns.length]!)],
  }));
}
const areaOf = (paths: readonly { readonly pieces: readonly Piece[] }[]) =>
  paths.reduce((sum, { pieces }) => sum + enclosedArea(pieces), 0);
const around = (pieces: readonly Piece[]) => pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);

it('what is convex grows by its rim times the distance and a disc (Steiner, 1840), and a straight strip with round ends is as large', () => {
  for (const seed of seeds(100)) {
    const { uniform } = createRandom(seed);
    const [pieces, by] = [convex(uniform), 0.1 + 20 * uniform()];
    const grown = offsetClosed([{ closed: true, pieces }], by, LIMITS);
    expect(grown.ok && areaOf(grown.value)).toBeCloseTo(
      enclosedArea(pieces) + by * around(pieces) + Math.PI * by * by,
      6,
    );
    const bar = strip([{ closed: false, pieces: pieces.slice(0, 1) }], { left: by, right: by }, 'round', LIMITS);
    expect(bar.ok && areaOf(bar.value)).toBeCloseTo(2 * by * pieceLength(pieces[0]!) + Math.PI * by * by, 6);
  }
});

it('a strip along what bends less than it is wide is as large as along a line of that length (Weyl, On the volume of tubes, 1939)', () => {
  for (const seed of seeds(60)) {
    const { uniform } = createRandom(seed);
    const radius = 5 + 50 * uniform();
    const [arc, by] = [
      { kind: 'arc' as const, centre: [1, 2] as Vec, radius, start: 6 * uniform(), sweep: 0.2 + 2 * uniform() },
      0.9 * uniform() * radius * 0.5 + 0.05,
    ];
    const bent = strip([{ closed: false, pieces: [arc] }], { left: by, right: by }, 'round', LIMITS);
    expect(bent.ok && areaOf(bent.value)).toBeCloseTo(2 * by * pieceLength(arc) + Math.PI * by * by, 5);
  }
});
