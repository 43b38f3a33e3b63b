import { toPlane, toSheet } from '@/core/calibrate/sheet-map';
import { trueMap } from '@/core/calibrate/simulation';
import { circle, nearestOn, pointAt, type Piece, type Vec } from '@/core/geometry';
import { pathData } from './path-data';

/** Places along path data, a few on each line or cubic. */
function along(data: string): Vec[] {
  let at: Vec = [0, 0];
  return [...data.matchAll(/([MLC])([^MLCZ]+)/g)].flatMap(([, command, numbers]) => {
    const p = numbers!.trim().split(/[ ,]+/).map(Number);
    const pairs = Array.from({ length: p.length / 2 }, (_, i): Vec => [p[2 * i]!, p[2 * i + 1]!]);
    const from = at;
    at = pairs.at(-1)!;
    const piece: Piece | undefined =
      command === 'L'
        ? { kind: 'line', a: from, b: at }
        : command === 'C'
          ? { kind: 'cubic', a: from, b: pairs[0]!, c: pairs[1]!, d: at }
          : undefined;
    return piece ? [0, 0.25, 0.5, 0.75, 1].map((t) => pointAt(piece, t)) : [at];
  });
}

it('draws lines and arcs where they lie on a slanted picture through a bowed lens', () => {
  const map = trueMap({ width: 4032, height: 3024, kind: 'photo', focal35mm: 26 }, 'camera', 'k1k2', [
    Math.log(330),
    0.5,
    0.2,
    0.18,
    0.06,
    0.01,
  ]);
  const fromPlane = (place: Vec) => toSheet(map, place);
  const ring = circle([20, 10], 60);
  const line: Piece = { kind: 'line', a: [-110, -60], b: [120, 80] };
  for (const piece of [ring, line]) {
    const drawn = along(pathData([piece], false, fromPlane));
    expect(drawn.length).toBeGreaterThan(20);
    // A hundredth of a millimetre is a twentieth of a pixel here.
    for (const place of drawn) expect(nearestOn(piece, toPlane(map, place)).distance).toBeLessThan(0.01);
  }
  expect(
    nearestOn({ kind: 'line', a: fromPlane(line.a), b: fromPlane(line.b) }, fromPlane(pointAt(line, 0.5))).distance,
  ).toBeGreaterThan(3);
});
