/** For tests only: a garden bench in three scans, as a job. */
import { distance, type Vec } from '../geometry';
import {
  addEvidence,
  addFeature,
  addSheet,
  createView,
  setJoins,
  setSide,
  type Command,
  type Feature,
  type Job,
  type Sheet,
} from '../job';
import { jobOf, scanOf } from '../job/for-tests';
import { drawnAt, HEIGHT, WIDTH, type Drawn } from '../arrange/simulated';
import { showsAlong, type Direction, type Side, type Vec3 } from '../space';

/** A garden bench, roughly: mm. */
export const THING: Readonly<Record<string, Vec3>> = {
  foot: [0, 0, 0],
  end: [1400, 520, 0],
  seat: [40, 30, 430],
  back: [1360, 500, 860],
};

export const drawn = (id: string, side: Side, more: Partial<Drawn> = {}): Drawn => ({
  id,
  side,
  scale: 0.6,
  turn: 0.004,
  zero: [300, 2100],
  ...more,
});
export const FRONT = drawn('front', 'front');
export const RIGHT = drawn('side', 'right', { scale: 0.8, turn: -0.006, zero: [900, 2000] });
export const TOP = drawn('plan', 'top', { scale: 0.5, turn: 0.002, zero: [200, 1900] });

export const CLICK = 1;
export const NOISELESS = () => 0;

export const sheetOf = (id: string): Sheet => ({ ...scanOf(WIDTH, HEIGHT), id, name: id });

/** A view without a size of its own; its zero is at the foot. */
export const shown = (view: Drawn): readonly Command[] => [
  addSheet(sheetOf(view.id), {
    ...createView(view.id, sheetOf(view.id)),
    model: 'similarity',
    lens: 'none',
    datum: { origin: drawnAt(view, THING.foot!), direction: 0 },
  }),
  setSide(view.id, view.side),
];

export function sized(view: Drawn, from: string, to: string, sigma: number, noise: () => number, wrong = 1): Command {
  const [a, b] = [from, to].map((name) => drawnAt(view, THING[name]!)) as [Vec, Vec];
  const mm = wrong * (distance(a, b) * view.scale + sigma * noise());
  const at = (id: string, [x, y]: Vec) => ({ id, at: [x + CLICK * noise(), y + CLICK * noise()] as Vec, sigma: CLICK });
  return addEvidence(
    view.id,
    {
      id: `${view.id}-size`,
      kind: 'length',
      groups: [['a', 'b']],
      said: { length: { value: mm, written: String(mm) } },
      plusMinus: 2 * sigma,
      guess: false,
      role: 'use',
    },
    [at('a', a), at('b', b)],
  );
}

/** A line or a place that all these views show, at each of its places. */
export function sharedBy(
  views: readonly Drawn[],
  id: string,
  at: readonly string[],
  noise: () => number,
  along?: Direction,
  more: Partial<Feature> = {},
): Command {
  const showing = views.filter(({ side }) => along === undefined || showsAlong(side, along));
  return addFeature({
    id,
    name: id,
    along,
    said: {},
    seen: showing.flatMap((view) =>
      at.map((name) => {
        const [x, y] = drawnAt(view, THING[name]!);
        return {
          id: `${id}-${view.id}-${name}`,
          view: view.id,
          at: [x + CLICK * noise(), y + CLICK * noise()] as Vec,
          sigma: CLICK,
        };
      }),
    ),
    ...more,
  });
}

export const ALL = [FRONT, RIGHT, TOP];
export const zero = { value: 0, written: '0' };

/** The front has a size of its own, side and plan take theirs from what they share with it. */
export const benchOf = (noise = NOISELESS, more: readonly Command[] = []): Job =>
  jobOf([
    ...ALL.flatMap(shown),
    sized(FRONT, 'foot', 'end', 1, noise),
    sharedBy(ALL, 'base', ['foot', 'end'], noise, 'up', { said: { up: zero } }),
    sharedBy(ALL, 'A', ['foot'], noise, undefined, { said: { across: zero, deep: zero } }),
    sharedBy(ALL, 'B', ['back'], noise),
    sharedBy(ALL, 'C', ['end'], noise),
    ...more,
  ]);
export const joining = (...views: readonly Drawn[]) => views.map(({ id }) => setJoins(id, true));
