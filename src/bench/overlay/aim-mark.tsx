import type { ReactNode } from 'react';
import type { Vec } from '@/core/geometry';
import { FONT, type Palette } from '@/ui/palette';
import { AIM_RADIUS } from '../aim';

/** The fine cross at the aim, with the name of what it caught. */
export function AimCross({
  at: [x, y],
  snap,
  palette,
  size,
}: {
  at: Vec;
  snap: string | undefined;
  palette: Palette;
  size: number;
}) {
  // In the magnified patch the name stands under the cross, where the circle has room for it.
  const inPatch = size === AIM_RADIUS;
  const d = `M${x - size} ${y}H${x - 4}M${x + 4} ${y}H${x + size}M${x} ${y - size}V${y - 4}M${x} ${y + 4}V${y + size}`;
  return (
    <g fill="none" pointerEvents="none" data-testid="aim-cross" data-x={x} data-y={y}>
      <path d={d} stroke={palette.halo} strokeWidth={3.4} strokeOpacity={0.85} />
      <path d={d} stroke={palette.ink} strokeWidth={1.2} />
      <circle cx={x} cy={y} r={1.1} fill={palette.berry} />
      {snap ? (
        <g data-testid="snap-name">
          <rect
            x={x - 6}
            y={y - 6}
            width={12}
            height={12}
            transform={`rotate(45 ${x} ${y})`}
            stroke={palette.berry}
            strokeWidth={1.8}
          />
          <text
            x={inPatch ? x : x + 13}
            y={inPatch ? y + 31 : y - 11}
            textAnchor={inPatch ? 'middle' : 'start'}
            stroke={palette.halo}
            strokeWidth={3.5}
            paintOrder="stroke"
            fill={palette.ink}
            fontFamily={FONT.text}
            fontSize={13}
            fontWeight={600}>
            {snap}
          </text>
        </g>
      ) : null}
    </g>
  );
}

/** The rim of the magnified patch; what is inside comes as children, cut to the circle. */
export function PatchRim({
  middle: [x, y],
  palette,
  children,
}: {
  middle: Vec;
  palette: Palette;
  children: ReactNode;
}) {
  return (
    <g pointerEvents="none" data-testid="aim-patch">
      <clipPath id="aim-clip">
        <circle cx={x} cy={y} r={AIM_RADIUS} />
      </clipPath>
      <g clipPath="url(#aim-clip)">{children}</g>
      <circle cx={x} cy={y} r={AIM_RADIUS} fill="none" stroke={palette.paper} strokeWidth={5} />
      <circle cx={x} cy={y} r={AIM_RADIUS + 2} fill="none" stroke={palette.ink} strokeWidth={1.4} />
    </g>
  );
}

/** A place that is pointed out: three widening rings that do not move. */
export function Beacon({ at: [x, y], palette }: { at: Vec; palette: Palette }) {
  return (
    <g fill="none" pointerEvents="none" data-testid="beacon">
      {[10, 17, 24].map((r, i) => (
        <circle key={r} cx={x} cy={y} r={r} stroke={palette.straw} strokeWidth={2.4 - i * 0.6} />
      ))}
    </g>
  );
}
