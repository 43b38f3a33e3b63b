import type { Vec } from '@/core/geometry';
import type { Palette } from '@/ui/palette';

export type DimensionLook = 'evidence' | 'check' | 'measure' | 'datum' | 'advice';

interface DimensionProps {
  readonly from: Vec;
  readonly to: Vec;
  readonly look: DimensionLook;
  /** A guess has waves where a measured size has ticks. */
  readonly guess?: boolean | undefined;
  readonly palette: Palette;
  /** Another ink than the look's own, and a thicker line: for a suspect, and for what is pointed out. */
  readonly color?: string | undefined;
  readonly bold?: boolean | undefined;
  readonly testID?: string | undefined;
}

const TICK = 9;

const LOOKS: Readonly<
  Record<DimensionProps['look'], { readonly ink: 'tide' | 'plum' | 'ink' | 'straw'; readonly dashes?: string }>
> = {
  evidence: { ink: 'tide' },
  check: { ink: 'plum', dashes: '2 5' },
  measure: { ink: 'ink' },
  datum: { ink: 'straw', dashes: '10 4' },
  advice: { ink: 'straw', dashes: '2 6' },
};

/** A drafting dimension between two places on the screen: slanted ticks at its ends. Its figure is a label of the drawing. */
export function DimensionLine({ from, to, look, guess, palette, testID, color: ink, bold }: DimensionProps) {
  const { ink: own, dashes } = LOOKS[look];
  const color = ink ?? palette[own];
  const line = `M${from[0]} ${from[1]}L${to[0]} ${to[1]}`;
  return (
    <g data-testid={testID}>
      <path d={line} stroke={palette.halo} strokeWidth={4.5} strokeOpacity={0.8} fill="none" />
      <path
        d={line}
        stroke={color}
        strokeWidth={bold ? 3 : 1.6}
        strokeDasharray={dashes}
        strokeLinecap="round"
        fill="none"
      />
      {[from, to].map((at, i) => (
        <End
          key={i}
          at={at}
          along={[to[0] - from[0], to[1] - from[1]]}
          color={color}
          hollow={look === 'check'}
          wave={guess === true}
          palette={palette}
        />
      ))}
    </g>
  );
}

function End({
  at,
  along,
  color,
  hollow,
  wave,
  palette,
}: {
  at: Vec;
  along: Vec;
  color: string;
  hollow: boolean;
  wave: boolean;
  palette: Palette;
}) {
  const angle = (Math.atan2(along[1], along[0]) * 180) / Math.PI;
  const d = wave
    ? `M0 ${-TICK}q${TICK * 0.8} ${TICK / 2} 0 ${TICK}t0 ${TICK}`
    : `M${TICK * 0.5} ${-TICK}L${-TICK * 0.5} ${TICK}`;
  return (
    <g transform={`translate(${at[0]} ${at[1]}) rotate(${angle})`} fill="none">
      <path d={d} stroke={palette.halo} strokeWidth={6} strokeOpacity={0.8} />
      <path d={d} stroke={color} strokeWidth={hollow ? 4 : 2.4} />
      {hollow ? <path d={d} stroke={palette.halo} strokeWidth={1.6} /> : null}
    </g>
  );
}
