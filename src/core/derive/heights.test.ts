/** What stands above the plane looks larger: a camera straight above a table, and a battery on end upon it. */
import { measuredLength } from '../calibrate';
import type { Vec } from '../geometry';
import {
  addEvidence,
  addSheet,
  createJob,
  createView,
  raisePoints,
  runCommand,
  setLift,
  setLocked,
  setLookOnly,
  startHistory,
  undo,
  type Evidence,
  type EvidencePoint,
  type Sheet,
} from '../job';
import { heightAbovePlane, SHELF } from '../shelf';
import { createDeriver } from './derive';

const AWAY = 600;
const BATTERY = SHELF.find(({ name }) => name === 'AA cell, end on')!;
const sheet: Sheet = {
  id: 's',
  name: 's',
  picture: 'a'.repeat(64),
  mediaType: 'image/jpeg',
  bytes: 1,
  width: 4000,
  height: 3000,
  kind: 'photo',
  taken: { focal35mm: 28 },
};
/** A film of 36 × 24 mm has a diagonal of 43.27 mm: focal lengths are told by it. */
const FOCAL_PX = (28 / Math.hypot(36, 24)) * Math.hypot(4000, 3000);

/** Where a place of the table, at a height above it, is seen. mm to px. */
const seen = ([x, y]: Vec, height = 0): Vec => [
  2000 + (x * FOCAL_PX) / (AWAY - height),
  1500 - (y * FOCAL_PX) / (AWAY - height),
];

const diameter = BATTERY.shape.kind === 'circle' ? BATTERY.shape.diameter : NaN;
const rim = Array.from({ length: 12 }, (_, i): EvidencePoint => {
  const turn = (i * Math.PI) / 6;
  return {
    id: `r${i}`,
    at: seen([60 + (diameter / 2) * Math.cos(turn), 40 + (diameter / 2) * Math.sin(turn)], BATTERY.rim),
    sigma: 0.3,
  };
});
const round: Evidence = {
  id: 'battery',
  kind: 'circle',
  groups: [rim.map(({ id }) => id)],
  said: { diameter: { value: diameter, written: '14' } },
  plusMinus: 0.1,
  guess: false,
  role: 'use',
};

/** The table from 100 mm left to 100 mm right of the middle, as the fit has it. */
function lengthOn(job: Parameters<ReturnType<typeof createDeriver>>[0]) {
  const { fit } = createDeriver()(job).views.get('v')!;
  return measuredLength(fit, { at: seen([-100, 0]), sigma: 0.3 }, { at: seen([100, 0]), sigma: 0.3 });
}

describe('a thing of the shelf that stands high', () => {
  const empty = runCommand(startHistory(createJob('j', 'Job', new Date(0))), addSheet(sheet, createView('v', sheet)));
  const flat = runCommand(runCommand(empty, addEvidence('v', round, rim)), setLift('v', 0));

  it('gives the table its true size once its rim is raised, and one that is far too small while it is not', () => {
    const raised = runCommand(flat, raisePoints('v', 'battery', BATTERY.rim));
    const { value, sigma } = lengthOn(raised.job);
    expect(Math.abs(value - 200)).toBeLessThan(2 * sigma);
    expect(sigma).toBeLessThan(2);
    // The rays that graze the rim meet the table farther out, by the distances of both from the camera.
    expect(lengthOn(flat.job).value).toBeCloseTo((200 * (AWAY - BATTERY.rim!)) / AWAY, 0);
    expect(undo(raised).job).toEqual(flat.job);
    expect(runCommand(raised, raisePoints('v', 'battery', undefined)).job.views).toEqual(flat.job.views);
  });

  it('knows its height from the shelf; what is thin lies in one plane with other thin things', () => {
    expect(heightAbovePlane(BATTERY)).toBe(50);
    expect(SHELF.filter((entry) => heightAbovePlane(entry) !== undefined).every(({ rim: high }) => high! > 3)).toBe(
      true,
    );
    expect(heightAbovePlane(SHELF.find(({ name }) => name === 'bank card')!)).toBeUndefined();
  });
});

it('a picture that is kept only to look at has no scale and no sizes, and all of it comes back', () => {
  const empty = runCommand(startHistory(createJob('j', 'Job', new Date(0))), addSheet(sheet, createView('v', sheet)));
  const known = runCommand(empty, addEvidence('v', round, rim));
  const kept = runCommand(known, setLookOnly('v', true));
  const [before, only, after] = [known, kept, runCommand(kept, setLookOnly('v', false))].map(({ job }) =>
    createDeriver()(job).views.get('v')!,
  );
  expect([before!.fit.scaled, only!.fit.scaled, only!.sigma, only!.refusal]).toEqual([
    true,
    false,
    undefined,
    undefined,
  ]);
  expect(only!.view.evidence).toEqual(before!.view.evidence);
  expect([...after!.fit.values]).toEqual([...before!.fit.values]);
  expect(runCommand(runCommand(known, setLocked('v', true)), setLookOnly('v', true)).job.views[0]!.locked).toBe(true);
});
