/** An opening that is drawn in an elevation, as one of the wall that lies behind it in the plan. */
import fc from 'fast-check';
import { drawnAt } from '../arrange/simulated';
import { createRandom } from '../calibrate/simulation';
import type { Vec } from '../geometry';
import {
  addFeature,
  addMade,
  addOutline,
  changeOpenings,
  readJob,
  removeOutlines,
  seeFeature,
  setJoins,
  setStandsOn,
  standBetween,
  type Command,
  type Feature,
  type Job,
} from '../job';
import { changed } from '../job/for-tests';
import { countedFromOther, type Chain, type MadeOutline, type Opening } from '../outline';
import { distance3, type Vec3 } from '../space';
import { ALL, benchOf, CLICK, FRONT, joining, NOISELESS, shown, TOP } from './bench-for-tests';
import { chainOn, FROM, LONG, onWall, pointedAt, shownEnds, TO, WALL, type Noise } from './wall-for-tests';
import { asRead, createDeriver, offFromRead, readOpening, sizesRead, type OpeningRead } from '.';

/** A room askew over the plan, counter-clockwise from its corner; the elevation of its first wall. mm */
const CORNERS: readonly Vec3[] = [FROM, TO, [950, 850, 0], [50, 550, 0]];
/** A window and a door, from where to where along the wall and above the floor. */
const WINDOW = { from: 480, to: 740, low: 300, high: 620 };
const DOOR = { from: 120, to: 330, low: 0, high: 640 };

const chain = (id: string, plane: string, places: readonly Vec[], noise: Noise): Chain =>
  chainOn(
    id,
    plane,
    places.map((at) => pointedAt(at, noise)),
    { closed: true },
  );
const boxOf = ({ from, to, low, high }: typeof WINDOW): readonly Vec[] =>
  [
    [from, low],
    [to, low],
    [to, high],
    [from, high],
  ].map(([u, v]) => onWall(u!, v!));
const strip = (id: string, of: string): MadeOutline => ({
  shape: 'made',
  id,
  plane: 'plan',
  layer: 'outline',
  recipe: { kind: 'strip', of: [of], width: 30, justified: 'middle', ends: 'flat', corners: 'mitre' },
});

/** The room with its walls in the plan, one inside of it, and the elevation between the ends of its first wall. */
function roomWith(noise: Noise, way: readonly Vec3[] = CORNERS, ...more: readonly Command[]): Job {
  const from = `room${way.indexOf(CORNERS[0]!)}`;
  const isTurned = way[(way.indexOf(CORNERS[0]!) + 1) % 4] !== CORNERS[1];
  const node = isTurned ? `room${way.indexOf(CORNERS[1]!)}` : from;
  const inner = [CORNERS[0]!, CORNERS[1]!, CORNERS[2]!, CORNERS[3]!].map(([x, y]): Vec3 => [
    575 + 0.6 * (x - 575),
    475 + 0.6 * (y - 475),
    0,
  ]);
  const drawn = benchOf(noise, [
    ...joining(...ALL),
    ...shown(WALL).filter((_, i) => i === 0),
    addOutline(
      chain(
        'room',
        'plan',
        way.map((at) => drawnAt(TOP, at)),
        noise,
      ),
    ),
    addOutline(
      chain(
        'core',
        'plan',
        inner.map((at) => drawnAt(TOP, at)),
        noise,
      ),
    ),
    addMade(strip('inner', 'core'), false),
    addMade(strip('walls', 'room'), false),
    addOutline(chain('window', 'wall', boxOf(WINDOW), noise)),
    addOutline(chain('door', 'wall', boxOf(DOOR), noise)),
    setStandsOn('wall', { outline: 'room', from: node, ...(isTurned ? { turned: true } : {}) }),
  ]);
  return changed(drawn, standBetween('wall', shownEnds(drawn, noise)), setJoins('wall', true), ...more);
}
const derive = (job: Job) => createDeriver()(job);
const outlineIn = (job: Job, id: string) => job.outlines.find((outline) => outline.id === id)!;
function readIn(job: Job, id: string): OpeningRead {
  const read = readOpening(outlineIn(job, id), { job, derived: derive(job) });
  if (!read.ok) throw new Error(read.code);
  return read.value;
}

it('is so far from the corner, so wide, and so high above the floor as it was drawn, in the wall that is met first', () => {
  const job = roomWith(NOISELESS);
  const window = readIn(job, 'window');
  expect(window).toMatchObject({ wall: 'walls', last: 'room1', stands: { corner: 'room0', way: 'on' } });
  const { distance, width, sill, head } = window.stands;
  [
    [distance, WINDOW.from],
    [width, WINDOW.to - WINDOW.from],
    [sill, WINDOW.low],
    [head, WINDOW.high],
    [window.length, LONG],
  ].forEach(([mm, truth]) => expect(mm).toBeCloseTo(truth!, 0));
  // A door begins at the floor.
  expect(readIn(job, 'door').stands).toEqual({
    corner: 'room0',
    way: 'on',
    distance: expect.closeTo(DOOR.from, 0),
    width: expect.closeTo(DOOR.to - DOOR.from, 0),
    head: expect.closeTo(DOOR.high, 0),
  });
});

it('is measured from the floor of its wall, wherever the zero of the elevation is', () => {
  const onBase = [0, LONG].map((along, i) =>
    seeFeature('base', { id: `base-wall${i}`, view: 'wall', at: onWall(along, 0), sigma: CLICK }),
  );
  const level: Feature = {
    id: 'shelf',
    name: 'Shelf',
    along: 'up',
    said: { up: { value: 150, written: '150' } },
    seen: [],
  };
  const raised = roomWith(NOISELESS, CORNERS, ...onBase, addFeature(level));
  const job: Job = {
    ...raised,
    views: raised.views.map((view) =>
      view.id === 'wall' ? { ...view, datum: { ...view.datum, origin: onWall(0, 100) } } : view,
    ),
    layers: [...raised.layers, { ...raised.layers[0]!, id: 'upper', name: 'Upper', liesAt: 'shelf' }],
    outlines: raised.outlines.map((outline) => (outline.id === 'walls' ? { ...outline, layer: 'upper' } : outline)),
  };
  expect(derive(job).arranged.stands.get('wall')!.pose.origin[2]).toBeCloseTo(100, 0);
  const { sill, head } = readIn(job, 'window').stands;
  expect([sill, head]).toEqual([WINDOW.low - 150, WINDOW.high - 150].map((mm) => expect.closeTo(mm, 0)));
});

it('is the same place, whichever way round and from whichever corner the room was drawn', () => {
  const around = fc.tuple(fc.integer({ min: 0, max: 3 }), fc.boolean()).map(([first, isBack]) => {
    const from = [...CORNERS.slice(first), ...CORNERS.slice(0, first)];
    return isBack ? from.reverse() : from;
  });
  fc.assert(
    fc.property(around, (way) => {
      const { stands, last } = readIn(roomWith(NOISELESS, way), 'window');
      const starts = distance3(way[Number(stands.corner.slice(4))]!, CORNERS[0]!) < 1;
      expect(stands.distance).toBeCloseTo(starts ? WINDOW.from : LONG - WINDOW.to, 0);
      expect(way[Number(last.slice(4))]).toEqual(CORNERS[starts ? 1 : 0]);
    }),
    { numRuns: 8, seed: 4 },
  );
});

it('its width and its height lie within two sigma as often as they should', () => {
  const trials = 120;
  const within = Array.from({ length: trials }, (_, seed) => {
    const { normal } = createRandom(seed + 1);
    const job = roomWith(() => normal());
    const { width, low, high } = sizesRead(outlineIn(job, 'window'), { job, derived: derive(job) })!;
    const isWithin = ({ value, sigma }: typeof width, truth: number) => Number(Math.abs(value - truth) <= 2 * sigma);
    const tall = { value: high.value - low.value, sigma: Math.hypot(low.sigma, high.sigma) };
    return [isWithin(width, WINDOW.to - WINDOW.from), isWithin(tall, WINDOW.high - WINDOW.low)] as const;
  });
  const [wide, tall] = [0, 1].map((which) => within.reduce((sum, each) => sum + each[which]!, 0) / trials);
  expect(wide).toBeGreaterThan(0.9);
  expect(wide).toBeLessThan(1);
  expect(tall).toBeGreaterThan(0.9);
});

it('what differs later between plan and elevation is told, also where it is counted from the other corner', () => {
  const job = roomWith(NOISELESS);
  const read = readIn(job, 'window');
  const opening: Opening = { id: 'o', ...read.stands, read: 'window' };
  expect(offFromRead(opening, 'walls', read)).toBe(0);
  expect(offFromRead({ ...opening, width: opening.width + 12 }, 'walls', read)).toBeCloseTo(12, 9);
  expect(offFromRead({ ...opening, sill: 310 }, 'walls', read)).toBeCloseTo(310 - read.stands.sill!, 9);
  expect(offFromRead({ ...opening, head: undefined }, 'walls', read)).toBe(0);
  const other = countedFromOther(opening, outlineIn(job, 'room') as Chain, read.length);
  expect(other.way).toBe('back');
  expect(offFromRead(other, 'walls', read)).toBeCloseTo(0, 9);
  expect([offFromRead(opening, 'inner', read), offFromRead({ ...opening, corner: 'room2' }, 'walls', read)]).toEqual([
    Infinity,
    Infinity,
  ]);
  const named: Opening = { ...opening, width: 5, name: 'W9', fill: { kind: 'window', frame: 1, leaf: 1, leaves: 1 } };
  expect(asRead(named, read)).toEqual({ ...named, ...read.stands });
});

it('without what it was read from an opening stays as it is, and its job is read again', () => {
  const job = roomWith(NOISELESS);
  const opening: Opening = { id: 'o', ...readIn(job, 'window').stands, read: 'window' };
  const made = changed(
    job,
    changeOpenings('walls', [opening], 'opening-read', () => 'new'),
  );
  expect(readJob(JSON.parse(JSON.stringify(made)))).toMatchObject({ ok: true });
  const lost = { ...made, outlines: made.outlines.filter(({ id }) => id !== 'window') };
  expect(readJob(JSON.parse(JSON.stringify(lost)))).toMatchObject({ ok: false, code: 'job-damaged' });
  const { read: _gone, ...left } = opening;
  const wall = outlineIn(changed(made, removeOutlines(['window'])), 'walls') as MadeOutline;
  expect(wall.recipe).toMatchObject({ openings: [left] });
  expect((wall.recipe as { openings?: readonly Opening[] }).openings![0]).not.toHaveProperty('read');
});

it.each([
  ['in a plan', 'core', [], 'opening-not-upright'],
  ['in a front that no wall runs along', 'ahead', [], 'opening-no-wall'],
  ['that reaches beyond its wall', 'wide', [], 'opening-no-wall'],
  ['of no height', 'flat', [], 'opening-empty'],
  ['that is open', 'open', [], 'opening-empty'],
  ['of the wall itself', 'whole', [], 'opening-no-wall'],
  ['in a view that does not stand', 'window', [setStandsOn('wall', undefined)], 'opening-not-upright'],
  ['before any wall is drawn', 'window', [removeOutlines(['walls', 'inner'])], 'opening-no-wall'],
] as const)('an outline %s is none', (_, id, more, code) => {
  const job = roomWith(
    NOISELESS,
    CORNERS,
    addOutline(
      chain(
        'ahead',
        'front',
        [
          [300, 400],
          [900, 400],
          [900, 800],
        ].map(([x, z]) => drawnAt(FRONT, [x!, 0, z!])),
        NOISELESS,
      ),
    ),
    addOutline(chain('wide', 'wall', boxOf({ ...WINDOW, to: LONG + 60 }), NOISELESS)),
    addOutline(chain('flat', 'wall', boxOf({ ...WINDOW, high: WINDOW.low }), NOISELESS)),
    addOutline({
      ...chain('open', 'wall', boxOf(WINDOW), NOISELESS),
      closed: false,
      segments: ['a', 'b', 'c'].map(() => ({ kind: 'line' })),
    }),
    addOutline(chain('whole', 'wall', boxOf({ from: 10, to: LONG - 10, low: 0, high: 700 }), NOISELESS)),
    ...more,
  );
  expect(readOpening(outlineIn(job, id), { job, derived: derive(job) })).toMatchObject({ ok: false, code });
});
