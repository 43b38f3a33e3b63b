import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { useDesk } from '@/bench/use-session';
import type { Folding } from '@/core/derive';
import { signedAngle } from '@/core/geometry';
import { usePalette } from '@/ui/palette';

/** A step of the arrow keys, and a pixel of the hand. Radians. */
const STEP = Math.PI / 36;
const PER_PX = Math.PI / 300;
const MOST_TIP = Math.PI / 2;
const DEGREES = 180 / Math.PI;

/** What is slid along one axis by hand and by arrow keys. */
function useSliding(read: () => number, set: (value: number) => void, axis: 'clientX' | 'clientY', sense: 1 | -1) {
  const from = useRef<{ readonly at: number; readonly value: number }>(undefined);
  const keys: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };
  return {
    onPointerDown(event: PointerEvent<Element>) {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = { at: event[axis], value: read() };
    },
    onPointerMove(event: PointerEvent<Element>) {
      if (from.current) set(from.current.value + sense * PER_PX * (event[axis] - from.current.at));
    },
    onPointerUp: () => void (from.current = undefined),
    onPointerCancel: () => void (from.current = undefined),
    onKeyDown(event: KeyboardEvent) {
      const way = keys[event.key];
      if (way === undefined) return;
      event.preventDefault();
      set(read() + way * STEP);
    },
  };
}

/** A wide ring along the foot of the bench: drawn sideways it turns what is looked at. */
export function TurnRing({ folding }: { folding: Folding }) {
  const palette = usePalette();
  const { session } = useDesk();
  const sliding = useSliding(
    () => folding.turn,
    (turn) => session.setFolding({ ...folding, turn: signedAngle(turn) }),
    'clientX',
    -1,
  );
  const ticks = Array.from({ length: 24 }, (_, i) => (i * Math.PI) / 12 - folding.turn);
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Turn"
      aria-valuemin={-180}
      aria-valuemax={180}
      aria-valuenow={Math.round(folding.turn * DEGREES)}
      aria-valuetext={`${Math.round(folding.turn * DEGREES)} degrees`}
      data-testid="turn-ring"
      {...sliding}
      style={{
        position: 'absolute',
        left: '50%',
        bottom: 6,
        width: 'min(420px, 64%)',
        height: 56,
        transform: 'translateX(-50%)',
        touchAction: 'none',
        cursor: 'ew-resize',
      }}>
      <svg width="100%" height="100%" viewBox="0 0 400 56" preserveAspectRatio="none" fill="none" aria-hidden>
        <ellipse cx={200} cy={28} rx={194} ry={20} stroke={palette.paper} strokeWidth={12} />
        <ellipse cx={200} cy={28} rx={194} ry={20} stroke={palette.straw} strokeWidth={1.6} />
        {ticks.map((angle, i) => {
          const isQuarter = i % 6 === 0;
          const [x, y] = [200 + 194 * Math.sin(angle), 28 + 20 * Math.cos(angle)];
          return (
            <path
              key={i}
              d={`M${x} ${y}v${isQuarter ? -9 : -5}`}
              stroke={i === 0 ? palette.berry : palette.straw}
              strokeWidth={i === 0 ? 4 : isQuarter ? 2.4 : 1.2}
              opacity={Math.cos(angle) > 0 ? 1 : 0.35}
            />
          );
        })}
      </svg>
    </div>
  );
}

/** How far one looks down on it: a short slider at the left rim. */
export function TipSlider({ folding }: { folding: Folding }) {
  const palette = usePalette();
  const { session } = useDesk();
  const sliding = useSliding(
    () => folding.tip,
    (tip) => session.setFolding({ ...folding, tip: Math.min(MOST_TIP, Math.max(-MOST_TIP, tip)) }),
    'clientY',
    1,
  );
  const at = 60 + (50 * folding.tip) / MOST_TIP;
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Tip"
      aria-orientation="vertical"
      aria-valuemin={-90}
      aria-valuemax={90}
      aria-valuenow={Math.round(folding.tip * DEGREES)}
      data-testid="tip-slider"
      {...sliding}
      style={{
        position: 'absolute',
        left: 6,
        top: 'calc(50% - 60px)',
        width: 44,
        height: 120,
        touchAction: 'none',
        cursor: 'ns-resize',
      }}>
      <svg width={44} height={120} viewBox="0 0 44 120" fill="none" aria-hidden>
        <path d="M22 8V112" stroke={palette.paper} strokeWidth={10} strokeLinecap="round" />
        <path d="M22 8V112M16 60h12" stroke={palette.straw} strokeWidth={1.6} strokeLinecap="round" />
        <circle cx={22} cy={at} r={10} fill={palette.paper} stroke={palette.straw} strokeWidth={2} />
      </svg>
    </div>
  );
}
