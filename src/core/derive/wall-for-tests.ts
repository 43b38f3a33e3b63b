/** For tests only: a wall that runs askew over the plan of the garden bench, and an elevation of it that states no size. */
import { drawnAt, type Drawn } from '../arrange/simulated';
import type { Vec } from '../geometry';
import type { Job, LineShown } from '../job';
import type { Chain } from '../outline';
import { distance3, type Vec3 } from '../space';
import { CLICK } from './bench-for-tests';
import { endsOfEdge } from './edge-ends';

/** Where it begins and ends, mm. */
export const FROM: Vec3 = [200, 100, 0];
export const TO: Vec3 = [1100, 400, 0];
export const LONG = distance3(FROM, TO);

/** Half a millimetre a pixel, its zero at the wall's foot. */
export const WALL: Drawn = { id: 'wall', side: 'front', scale: 0.5, turn: 0, zero: [400, 1900] };
/** Where a place along it and up is on an elevation of it, px. */
export const seenOn =
  (wall: Drawn) =>
  (along: number, up: number): Vec =>
    drawnAt(wall, [along, 0, up]);
export const onWall = seenOn(WALL);

export type Noise = () => number;
export const pointedAt = ([x, y]: Vec, noise: Noise): Vec => [x + CLICK * noise(), y + CLICK * noise()];

/** An outline of places as they are pointed at, px. */
export function chainOn(
  id: string,
  plane: string,
  places: readonly Vec[],
  {
    closed = false,
    kind = 'line',
    layer = 'outline',
  }: { closed?: boolean; kind?: 'line' | 'curve'; layer?: string } = {},
): Chain {
  return {
    shape: 'chain',
    id,
    plane,
    layer,
    closed,
    nodes: places.map((at, i) => ({ id: `${id}${i}`, place: { kind: 'pointed', at, sigma: CLICK }, smooth: false })),
    segments: (closed ? places : places.slice(1)).map(() => ({ kind })),
  };
}

/** Both ends of the edge on which the wall's view stands, as that is pointed at in the view as well. */
export function shownEnds(job: Job, noise: Noise, seen = onWall): readonly [LineShown, LineShown] {
  const { standsOn } = job.views.find(({ id }) => id === WALL.id)!;
  const [from, to] = endsOfEdge(standsOn!, job)!.map(({ feature, seen: inPlan }, i): LineShown => {
    const along = LONG * (standsOn!.turned ? 1 - i : i);
    const here = { id: `end${i}`, view: WALL.id, at: pointedAt(seen(along, 0), noise), sigma: CLICK };
    return {
      id: feature?.id ?? `corner${i}`,
      name: `Corner ${i}`,
      seen: [...(inPlan ? [{ ...inPlan, id: `plan${i}` }] : []), here],
    };
  });
  return [from!, to!];
}
