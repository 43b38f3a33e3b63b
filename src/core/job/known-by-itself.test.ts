/** Evidence that nobody types: what a file says of its resolution, and places that were matched to what exists. */
import { createDeriver } from '../derive';
import { distance, type Vec } from '../geometry';
import { measuredLength } from '../calibrate';
import { addEvidence, addSheet, createJob, createView, runCommand, startHistory, type Job, type Sheet } from '.';
import { believableDpi, isResolution, resolutionEvidence } from './resolution';
import { matchedEvidence } from './matching';
import { scanOf } from './for-tests';

const sheet = scanOf(2480, 3508);
let made = 0;
const newId = () => `id${made++}`;

function jobWith({ evidence, points }: ReturnType<typeof matchedEvidence>, of: Sheet = sheet): Job {
  const piecewise = evidence.map((piece) =>
    addEvidence(
      'v',
      piece,
      points.filter(({ id }) => piece.groups.flat().includes(id)),
    ),
  );
  return [addSheet(of, createView('v', of)), ...piecewise].reduce(
    (history, command) => runCommand(history, command),
    startHistory(createJob('j', 'Job', new Date(0))),
  ).job;
}

describe('a resolution', () => {
  it('is believed of a scan at 100 dots an inch or more, and never of a photo', () => {
    const saying = (kind: Sheet['kind'], dpi: number | undefined) => believableDpi({ ...sheet, kind, taken: { dpi } });
    expect([saying('scan', 300), saying('drawing', 100), saying('scan', 96), saying('photo', 300)]).toEqual([
      300,
      100,
      undefined,
      undefined,
    ]);
    expect(saying('scan', undefined)).toBeUndefined();
  });

  it.each([
    ['scan', 1, 0.001],
    ['scan', 50, 0.001],
    ['drawing', 1, Math.hypot(0.001, 0.004)],
  ] as const)('makes a %s drawn 1:%d true to scale, as well as the device keeps its dots', (kind, ratio, least) => {
    const told = resolutionEvidence({ ...sheet, kind }, 300, ratio, newId);
    const job = jobWith({ evidence: [told.evidence], points: told.points }, { ...sheet, kind });
    const { fit, view } = createDeriver()(job).views.get('v')!;
    // ISO 216: A4 is 210 × 297 mm, at 300 dots an inch 2480 × 3508 px.
    const { value, sigma } = measuredLength(fit, { at: [0, 0], sigma: 0.01 }, { at: [2480, 0], sigma: 0.01 });
    expect(value / ratio).toBeCloseTo(209.97, 1);
    expect(sigma / value).toBeGreaterThan(0.6 * least);
    expect(sigma / value).toBeLessThan(2.5 * least);
    expect(view.evidence.map((piece) => isResolution(piece, view, sheet))).toEqual([true]);
  });
});

describe('places matched to what exists', () => {
  /** A plane of 4 mm a pixel, turned by 30° and mirrored in y, as sheets are. */
  const onPlane = ([x, y]: Vec): Vec => [4 * (0.866 * x + 0.5 * y), 4 * (0.5 * x - 0.866 * y)];
  const places = (['a', 'b', 'c'] as const).map((id, i) => {
    const at: Vec = [[300, 400] as const, [2100, 600] as const, [900, 3000] as const][i]!;
    return { id, from: { at, sigma: 0.5 }, to: { at: onPlane(at), sigma: 0.01 } };
  });

  it('lay the view there, and are never trusted beyond how one thing fits another', () => {
    const { fit } = createDeriver()(jobWith(matchedEvidence(places))).views.get('v')!;
    for (const at of [[500, 500] as Vec, [2000, 3000] as Vec])
      expect(distance(fit.toPlane(at), onPlane(at))).toBeLessThan(0.5);
    const apart = distance(places[0]!.to.at, places[1]!.to.at);
    for (const { plusMinus } of matchedEvidence(places).evidence) expect(plusMinus! / apart).toBeCloseTo(0.01, 3);
  });

  it('say once what was laid before, in the order in which they were matched', () => {
    const { evidence, points } = matchedEvidence(places, 2);
    expect(evidence.map(({ name }) => name)).toEqual(['matched place 3']);
    expect(points.map(({ id, at }) => [id, at])).toEqual([['c-at', [900, 3000]]]);
  });
});
