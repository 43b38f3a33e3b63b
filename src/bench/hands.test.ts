/** Simulated fingers: how far off they set a point, against what is said of how they set it. */
import { createRandom } from '@/core/calibrate/simulation';
import { pointingSigma } from './aim';
import { AT_REST, stepGesture, type Gesture, type GestureEffect, type TouchInput } from './gesture';

const FRAME = 16;
/** What the eye has seen reaches the hand so much later, ms. */
const SEEN_LATER = 200;
/** A target on the bench, CSS px; the finger goes down below it. */
const TARGET = [180, 300] as const;

interface Set {
  readonly off: readonly [number, number];
  readonly unaided: number;
}

/**
 * A finger that lands as well as the bench shows the place, then closes in on what it saw in the patch a moment ago, trembling, on a screen that tells whole half pixels; and rolls
 * as it is lifted after `held` ms.
 */
function pointWithFinger(held: number, seed: number): Set {
  const random = createRandom(seed);
  const finger: [number, number] = [TARGET[0] + 1.6 * random.normal(), TARGET[1] + 96 + 1.6 * random.normal()];
  let gesture: Gesture = AT_REST;
  let last: GestureEffect | undefined;
  const feed = (input: TouchInput) => {
    const [next, effects] = stepGesture(gesture, input);
    gesture = next;
    last = effects.at(-1) ?? last;
  };
  const told = () => [Math.round(finger[0] * 2) / 2, Math.round(finger[1] * 2) / 2] as const;
  const seen: (readonly [number, number])[] = [];
  feed({ kind: 'down', finger: 1, at: told(), time: 0 });
  for (let time = FRAME; time < held; time += FRAME) {
    if (last?.kind === 'aim') seen.push([last.screen[0] - TARGET[0], last.screen[1] - TARGET[1]]);
    const miss = seen[seen.length - 1 - Math.round(SEEN_LATER / FRAME)];
    const rolls = held - time < 40;
    for (const axis of [0, 1] as const) {
      // A slow finger moves the aim by a fifth of its way: it has to go five times as far as what it wants to put right.
      if (miss && Math.hypot(...miss) > 0.25)
        finger[axis] -= ((miss[axis] * 5 * FRAME) / 400) * (1 + 0.2 * random.normal());
      finger[axis] += (rolls ? 0.9 : 0.12) * random.normal();
    }
    feed({ kind: 'move', finger: 1, at: told(), time });
  }
  feed({ kind: 'up', finger: 1, time: held });
  if (last?.kind !== 'set') throw new Error('nothing was set');
  return { off: [last.screen[0] - TARGET[0], last.screen[1] - TARGET[1]], unaided: last.unaided };
}

/** Root mean square of what points are off in their own sigmas, and in CSS px. */
function play(held: number, zoom = 0.1): { readonly ratio: number; readonly off: number } {
  const sets = Array.from({ length: 400 }, (_, seed) => pointWithFinger(held, seed + 1));
  const mean = (values: readonly number[]) =>
    Math.sqrt(values.reduce((sum, value) => sum + value * value, 0) / values.length);
  return {
    ratio: mean(
      sets.flatMap(({ off, unaided }) =>
        off.map((px) => px / zoom / pointingSigma({ pointer: 'touch', unaided }, zoom)),
      ),
    ),
    off: mean(sets.flatMap(({ off }) => off)),
  };
}

describe('a finger', () => {
  it.each([60, 150, 300, 500, 800, 1200, 2000])(
    'that is lifted after %d ms is off by what is said, and not by much less',
    (held) => {
      const { ratio } = play(held);
      expect(ratio).toBeGreaterThan(0.4);
      expect(ratio).toBeLessThan(1.2);
    },
  );

  it('that taps is four times as far off as one that aims in the patch, and both are said so', () => {
    expect(play(60).off).toBeGreaterThan(4 * play(2000).off);
  });
});
