import type { Vec } from '@/core/geometry';
import { AIM_OFFSET } from './aim';

/**
 * What fingers on the bench mean, as a pure machine: one finger brings the aim and lifting sets the point; a second finger
 * turns the whole gesture into panning and zooming, and nothing is set.
 */
export type Gesture =
  | { readonly kind: 'rest' }
  | { readonly kind: 'aiming'; readonly finger: number; readonly at: Vec; readonly time: number; readonly aim: Vec }
  | { readonly kind: 'moving'; readonly fingers: ReadonlyMap<number, Vec> };

export type TouchInput =
  | { readonly kind: 'down' | 'move'; readonly finger: number; readonly at: Vec; readonly time: number }
  | { readonly kind: 'up' | 'lost'; readonly finger: number };

export type GestureEffect =
  | { readonly kind: 'aim'; readonly screen: Vec }
  | { readonly kind: 'set'; readonly screen: Vec }
  | { readonly kind: 'drop-aim' }
  | { readonly kind: 'pan-zoom'; readonly about: Vec; readonly by: Vec; readonly factor: number };

export const AT_REST: Gesture = { kind: 'rest' };

/** A slow finger moves the aim by a fifth of its own way, a quick one by all of it. CSS px a second. */
const SLOW = 30;
const QUICK = 220;
const FINE = 0.2;

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
    return [{ kind: 'aiming', finger, at, time, aim }, [{ kind: 'aim', screen: aim }]];
  }
  const fingers = gesture.kind === 'aiming' ? new Map([[gesture.finger, gesture.at]]) : new Map(gesture.fingers);
  return [{ kind: 'moving', fingers: fingers.set(finger, at) }, [{ kind: 'drop-aim' }]];
}

function fingerMoved(gesture: Gesture, { finger, at, time }: Placed): readonly [Gesture, readonly GestureEffect[]] {
  if (gesture.kind === 'aiming' && finger === gesture.finger) {
    const by: Vec = [at[0] - gesture.at[0], at[1] - gesture.at[1]];
    const speed = (Math.hypot(...by) * 1000) / Math.max(1, time - gesture.time);
    const gain = Math.min(1, Math.max(FINE, FINE + ((1 - FINE) * (speed - SLOW)) / (QUICK - SLOW)));
    const aim: Vec = [gesture.aim[0] + by[0] * gain, gesture.aim[1] + by[1] * gain];
    return [{ ...gesture, at, time, aim }, [{ kind: 'aim', screen: aim }]];
  }
  if (gesture.kind !== 'moving' || !gesture.fingers.has(finger)) return [gesture, []];
  const before = spanOf(gesture.fingers);
  const fingers = new Map(gesture.fingers).set(finger, at);
  const after = spanOf(fingers);
  const by: Vec = [after.middle[0] - before.middle[0], after.middle[1] - before.middle[1]];
  const factor = before.size > 0 && after.size > 0 ? after.size / before.size : 1;
  return [{ kind: 'moving', fingers }, [{ kind: 'pan-zoom', about: after.middle, by, factor }]];
}

function fingerUp(gesture: Gesture, { kind, finger }: TouchInput): readonly [Gesture, readonly GestureEffect[]] {
  if (gesture.kind === 'aiming') {
    if (finger !== gesture.finger) return [gesture, []];
    return [AT_REST, [kind === 'up' ? { kind: 'set', screen: gesture.aim } : { kind: 'drop-aim' }]];
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
  const middle: Vec = [places.reduce((sum, p) => sum + p[0], 0) / places.length, places.reduce((sum, p) => sum + p[1], 0) / places.length];
  return { middle, size: a && b ? Math.hypot(a[0] - b[0], a[1] - b[1]) : 0 };
}
