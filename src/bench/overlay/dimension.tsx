import type { Vec } from '@/core/geometry';
import { FONT, type Palette } from '@/ui/palette';

export type DimensionLook = 'evidence' | 'check' | 'measure' | 'datum' | 'advice';

interface DimensionProps {
  readonly from: Vec;
  readonly to: Vec;
  readonly look: DimensionLook;
  readonly label?: string | undefined;
  /** A guess has waves where a measured size has ticks. */
  readonly guess?: boolean | undefined;
  readonly palette: Palette;
  /** Another ink than the look's own, and a thicker line: for a suspect, and for what is pointed out. */
  readonly color?: string | undefined;
  readonly bold?: boolean | undefined;
  readonly testID?: string | undefined;
}

const TICK = 9;

/** A drafting dimension between two places on the screen: slanted ticks at its ends and the figure on a paper label. */
export function Dimension({ from, to, look, label, guess, palette, testID, color: ink, bold }: DimensionProps) {
  const color = ink ?? (look === 'check' ? palette.plum : look === 'measure' ? palette.ink : look === 'datum' || look === 'advice' ? palette.straw : palette.tide);
  const dashes = look === 'check' ? '2 5' : look === 'datum' ? '10 4' : look === 'advice' ? '2 6' : undefined;
  const place = label ? placeOfLabel(from, to, label) : undefined;
  const end = place?.isBeside ? place.at : to;
  const line = `M${from[0]} ${from[1]}L${end[0]} ${end[1]}`;
  return (
    <g data-testid={testID}>
      <path d={line} stroke={palette.halo} strokeWidth={4.5} strokeOpacity={0.8} fill="none" />
      <path d={line} stroke={color} strokeWidth={bold ? 3 : 1.6} strokeDasharray={dashes} strokeLinecap="round" fill="none" />
      {[from, to].map((at, i) => <End key={i} at={at} along={[to[0] - from[0], to[1] - from[1]]} color={color} hollow={look === 'check'} wave={guess === true} palette={palette} />)}
      {label && place ? <Label at={place.at} text={label} color={color} palette={palette} /> : null}
    </g>
  );
}

/** Kept clear of a figure on both sides, CSS px. */
const CLEAR = 12;

/** In the middle, or beyond the end where it would hide what is measured. */
function placeOfLabel(from: Vec, to: Vec, label: string): { readonly at: Vec; readonly isBeside: boolean } {
  const [x, y] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(x, y);
  const [width, height] = slipSize(label);
  const [u, v]: Vec = length > 0 ? [x / length, y / length] : [1, 0];
  // How far the slip reaches along the line from its middle.
  const half = Math.min(width / 2 / Math.max(Math.abs(u), 1e-9), height / 2 / Math.max(Math.abs(v), 1e-9));
  if (length > 2 * (half + CLEAR)) return { at: [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2], isBeside: false };
  return { at: [to[0] + u * (half + CLEAR), to[1] + v * (half + CLEAR)], isBeside: true };
}

function End({ at, along, color, hollow, wave, palette }: { at: Vec; along: Vec; color: string; hollow: boolean; wave: boolean; palette: Palette }) {
  const angle = (Math.atan2(along[1], along[0]) * 180) / Math.PI;
  const d = wave ? `M0 ${-TICK}q${TICK * 0.8} ${TICK / 2} 0 ${TICK}t0 ${TICK}` : `M${TICK * 0.5} ${-TICK}L${-TICK * 0.5} ${TICK}`;
  return (
    <g transform={`translate(${at[0]} ${at[1]}) rotate(${angle})`} fill="none">
      <path d={d} stroke={palette.halo} strokeWidth={6} strokeOpacity={0.8} />
      <path d={d} stroke={color} strokeWidth={hollow ? 4 : 2.4} />
      {hollow ? <path d={d} stroke={palette.halo} strokeWidth={1.6} /> : null}
    </g>
  );
}

const LETTER = 7.6;

/** A figure on a slip of paper, so that it reads on any picture. */
/** Size of a slip of paper with this text on it, CSS px. */
export const slipSize = (text: string): Vec => [text.length * LETTER + 14, 22];

export function Label({ at, text, color, palette }: { at: Vec; text: string; color: string; palette: Palette }) {
  const [width, height] = slipSize(text);
  return (
    <g transform={`translate(${at[0]} ${at[1]})`}>
      <rect x={-width / 2} y={-height / 2} width={width} height={height} rx={3} fill={palette.paper} stroke={color} strokeWidth={1} />
      <text y={4.5} textAnchor="middle" fill={color} fontFamily={FONT.figures} fontSize={12.5}>{text}</text>
    </g>
  );
}
