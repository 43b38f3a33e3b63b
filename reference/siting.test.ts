/** Where a drawing stands by tape, against the circles of Debian's python3-ezdxf; how far it keeps from an edge, against Clipper2. */
import { execFileSync } from 'node:child_process';
import { areaPaths, EndType, FillRule, inflatePathsD, intersectD, JoinType } from 'clipper2-ts';
import { add, applied, distance, findClearance, polar, type Line, type Piece, type Vec } from '../src/core/geometry';
import { mapOfPut, siteBy, type Hold, type Thing } from '../src/core/outline';

/** Numbers between 0 and 1 that are the same every time (Lehmer, 1951). */
function seeded(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** Two trees, and how far a corner is from each. mm */
interface Tapes {
  readonly trees: readonly [Vec, Vec];
  readonly long: readonly [number, number];
}

/** Both places that are so far from both trees. */
function crossedByEzdxf(all: readonly Tapes[]): readonly (readonly Vec[])[] {
  const script = `
import sys, json
from ezdxf.math import ConstructionCircle
print(json.dumps([[[p.x, p.y] for p in ConstructionCircle(t["trees"][0], t["long"][0]).intersect_circle(ConstructionCircle(t["trees"][1], t["long"][1]))] for t in json.load(sys.stdin)]))`;
  return JSON.parse(
    execFileSync('/usr/bin/python3', ['-c', script], { encoding: 'utf8', input: JSON.stringify(all) }),
  ) as readonly (readonly Vec[])[];
}

it('a corner by two tapes stands where the circles of another library cross, on the side on which it was put', () => {
  const next = seeded(20_260_514);
  const all = Array.from({ length: 200 }, (): Tapes => {
    const [p, q, r] = [0, 1, 2].map((): Vec => [20_000 * next(), 20_000 * next()]) as [Vec, Vec, Vec];
    return { trees: [p, q], long: [distance(p, r), distance(q, r)] };
  });
  let told = 0;
  crossedByEzdxf(all).forEach((crossings, i) => {
    const { trees, long } = all[i]!;
    // Where circles hardly cross, neither library can tell.
    if (crossings.length < 2 || distance(crossings[0]!, crossings[1]!) < 1000) return;
    for (const crossing of crossings) {
      told++;
      const holds = trees.map((_, k): Hold => ({
        id: String(k),
        kind: 'apart',
        own: { outline: 'corner' },
        to: { outline: String(k) },
        value: long[k]!,
      }));
      const find = ({ outline }: { readonly outline: string }): Thing => ({
        kind: 'place',
        at: outline === 'corner' ? [0, 0] : trees[Number(outline) as 0 | 1],
      });
      const { put } = siteBy({ holds, put: { at: add(crossing, polar(100, next() * 6)), turn: next() } }, find);
      expect(distance(applied(mapOfPut(put), [0, 0]), crossing)).toBeLessThan(1e-5);
    }
  });
  expect(told).toBeGreaterThan(200);
});

it('a band as wide around an edge as what is found just touches a polygon; a hair narrower it does not', () => {
  const next = seeded(7);
  const edge: Line = { kind: 'line', a: [0, 0], b: [100, 0] };
  const band = (reach: number) =>
    inflatePathsD(
      [
        [
          { x: 0, y: 0 },
          { x: 100, y: 0 },
        ],
      ],
      reach,
      JoinType.Round,
      EndType.Round,
      2,
      6,
      0.0005,
    );
  for (let i = 0; i < 200; i++) {
    const [middle, size] = [[-80 + 260 * next(), 20 + 80 * next()] as const, 3 + 12 * next()];
    const corners = Array.from({ length: 5 }, (_, k) =>
      add(middle, polar(size * (0.4 + 0.6 * next()), (k * 2 * Math.PI) / 5)),
    );
    const sides = corners.map((a, k): Piece => ({ kind: 'line', a, b: corners[(k + 1) % corners.length]! }));
    const { value } = findClearance(sides, edge, 1)!;
    const touched = (reach: number) =>
      Math.abs(areaPaths(intersectD(band(reach), [corners.map(([x, y]) => ({ x, y }))], FillRule.NonZero, 6)));
    expect([touched(value - 0.01) < 1e-9, touched(value + 0.02) > 0]).toEqual([true, true]);
  }
});
