import { distance, type Vec } from '@/core/geometry';
import { AIM_OFFSET } from './aim';

/**
 * What fingers on the bench mean, as a pure machine: one finger brings the aim and lifting sets the point; a second finger
 * turns the whole gesture into panning and zooming, and nothing is set.
 */
export type Gesture =
  | { readonly kind: 'rest' }
  | {
      readonly kind: 'aiming';
      readonly finger: number;
      readonly at: Vec;
      readonly time: number;
      readonly trail: readonly Aimed[];
    }
  | { readonly kind: 'moving'; readonly fingers: ReadonlyMap<number, Vec> };

/** Where the aim was at a time (ms), from the landing of the finger on. CSS px. */
interface Aimed {
  readonly aim: Vec;
  readonly time: number;
}

export type TouchInput =
  | { readonly kind: 'down' | 'move'; readonly finger: number; readonly at: Vec; readonly time: number }
  | { readonly kind: 'up'; readonly finger: number; readonly time: number }
  | { readonly kind: 'lost'; readonly finger: number };

/** `unaided`: how much of the aim is owed to the finger's landing and how much to the magnified patch: 1 just landed, 0 aimed in the patch at rest. */
export type GestureEffect =
  | { readonly kind: 'aim'; readonly screen: Vec; readonly unaided: number }
  | { readonly kind: 'set'; readonly screen: Vec; readonly unaided: number }
  | { readonly kind: 'drop-aim' }
  | { readonly kind: 'pan-zoom'; readonly about: Vec; readonly by: Vec; readonly factor: number };

export const AT_REST: Gesture = { kind: 'rest' };

/** A slow finger moves the aim by a fifth of its own way, a quick one by all of it. CSS px a second. */
const SLOW = 30;
const QUICK = 220;
const FINE = 0.2;

/**
 * Aiming is a row of corrections, each of what the eye saw a moment before: nothing is better than the landing until the first of them, then the miss falls by the same share in each time
 * (Crossman & Goodeve, Feedback control of hand-movement and Fitts' law, 1963). ms. The figures are assumed: see docs/accuracy.md.
 */
const REACTION = 250;
const CORRECTING = 250;
/** An aim that moves this fast, CSS px a second, when the finger is lifted is as good as just landed. */
const HURRIED = 32;
/** Over so long, ms, it is told how fast that is. */
const HURRY_OVER = 100;
/** A finger rolls as it is lifted: what the aim moved in the last moment, ms, by less than this, CSS px, was not meant. */
const LIFTING = 60;
const MOST_ROLLED = 4;

export function stepGesture(gesture: Gesture, input: TouchInput): readonly [Gesture, readonly GestureEffect[]] {
  switch (input.kind) {
    case 'down':
      return fingerDown(gesture, input);
    case 'move':
      return fingerMoved(gesture, input);
    default:
      return fingerUp(gesture, input);
  }
}

type Placed = Extract<TouchInput, { at: Vec }>;

function fingerDown(gesture: Gesture, { finger, at, time }: Placed): readonly [Gesture, readonly GestureEffect[]] {
  if (gesture.kind === 'rest') {
    const aim: Vec = [at[0] + AIM_OFFSET[0], at[1] + AIM_OFFSET[1]];
    return [{ kind: 'aiming', finger, at, time, trail: [{ aim, time }] }, [{ kind: 'aim', screen: aim, unaided: 1 }]];
  }
  const fingers = gesture.kind === 'aiming' ? new Map([[gesture.finger, gesture.at]]) : new Map(gesture.fingers);
  return [{ kind: 'moving', fingers: fingers.set(finger, at) }, [{ kind: 'drop-aim' }]];
}

const lastOf = (trail: readonly Aimed[]): Aimed => trail.at(-1)!;

/** The landing, and where the aim was in the last moment: no more of it is ever asked for. */
function recent([landing, ...since]: readonly Aimed[], time: number): readonly Aimed[] {
  const asked = time - LIFTING - HURRY_OVER;
  return [
    landing!,
    ...since.slice(
      Math.max(
        0,
        since.findLastIndex((aimed) => aimed.time <= asked),
      ),
    ),
  ];
}

function fingerMoved(gesture: Gesture, { finger, at, time }: Placed): readonly [Gesture, readonly GestureEffect[]] {
  if (gesture.kind === 'aiming' && finger === gesture.finger) {
    const by: Vec = [at[0] - gesture.at[0], at[1] - gesture.at[1]];
    const speed = (Math.hypot(...by) * 1000) / Math.max(1, time - gesture.time);
    const gain = Math.min(1, Math.max(FINE, FINE + ((1 - FINE) * (speed - SLOW)) / (QUICK - SLOW)));
    const last = lastOf(gesture.trail);
    const aim: Vec = [last.aim[0] + by[0] * gain, last.aim[1] + by[1] * gain];
    const trail = [...recent(gesture.trail, time), { aim, time }];
    return [{ ...gesture, at, time, trail }, [{ kind: 'aim', screen: aim, unaided: unaidedAt(trail, time) }]];
  }
  if (gesture.kind !== 'moving' || !gesture.fingers.has(finger)) return [gesture, []];
  const before = spanOf(gesture.fingers);
  const fingers = new Map(gesture.fingers).set(finger, at);
  const after = spanOf(fingers);
  const by: Vec = [after.middle[0] - before.middle[0], after.middle[1] - before.middle[1]];
  const factor = before.size > 0 && after.size > 0 ? after.size / before.size : 1;
  return [{ kind: 'moving', fingers }, [{ kind: 'pan-zoom', about: after.middle, by, factor }]];
}

/** Where the aim was at a time, or where it landed. */
const aimedAt = (trail: readonly Aimed[], time: number): Aimed =>
  trail.findLast((aimed) => aimed.time <= time) ?? trail[0]!;

/** How much the aim owes to the landing at a time: that falls with every correction, and is never less than what haste spoils. */
function unaidedAt(trail: readonly Aimed[], time: number): number {
  const held = time - trail[0]!.time;
  const [now, before] = [aimedAt(trail, time).aim, aimedAt(trail, time - HURRY_OVER).aim];
  const hurry = (distance(now, before) * 1000) / HURRY_OVER / HURRIED;
  return Math.min(1, Math.hypot(Math.exp(-Math.max(0, held - REACTION) / CORRECTING), held > REACTION ? hurry : 1));
}

/** Lifting sets where the aim was before the finger began to roll. */
function lifted(trail: readonly Aimed[], time: number): GestureEffect {
  const [now, before] = [lastOf(trail), aimedAt(trail, time - LIFTING)];
  const screen = distance(now.aim, before.aim) < MOST_ROLLED ? before.aim : now.aim;
  return { kind: 'set', screen, unaided: unaidedAt(trail, Math.max(trail[0]!.time, time - LIFTING)) };
}

function fingerUp(
  gesture: Gesture,
  input: Extract<TouchInput, { kind: 'up' | 'lost' }>,
): readonly [Gesture, readonly GestureEffect[]] {
  const { finger } = input;
  if (gesture.kind === 'aiming') {
    if (finger !== gesture.finger) return [gesture, []];
    return [AT_REST, [input.kind === 'up' ? lifted(gesture.trail, input.time) : { kind: 'drop-aim' }]];
  }
  if (gesture.kind === 'rest') return [gesture, []];
  const fingers = new Map(gesture.fingers);
  fingers.delete(finger);
  return [fingers.size === 0 ? AT_REST : { kind: 'moving', fingers }, []];
}

/** Middle of the fingers, and how far apart the first two are. */
function spanOf(fingers: ReadonlyMap<number, Vec>): { middle: Vec; size: number } {
  const places = [...fingers.values()];
  const [a, b] = places;
  const middle: Vec = [
    places.reduce((sum, p) => sum + p[0], 0) / places.length,
    places.reduce((sum, p) => sum + p[1], 0) / places.length,
  ];
  return { middle, size: a && b ? Math.hypot(a[0] - b[0], a[1] - b[1]) : 0 };
}
