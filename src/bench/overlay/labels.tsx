import { distance, type Vec } from '@/core/geometry';
import { FONT, type Palette } from '@/ui/palette';
import type { Viewport } from '../viewport';
import {
  MARK_SIZE,
  placesAround,
  type LabelLine,
  type LabelPlace,
  type LabelWish,
  type PlacedLabel,
} from './place-labels';

/** How a slip of paper is written: a figure large and in the colour of what it says, a word small with a rim in it. */
type Writing = 'figure' | 'word';

const WRITING: Readonly<
  Record<Writing, { readonly letter: number; readonly margin: number; readonly height: number }>
> = {
  figure: { letter: 7.6, margin: 14, height: 22 },
  word: { letter: 6.1, margin: 10, height: 17 },
};

/** A label that the drawing asks for. */
export interface DrawnLabel extends LabelWish {
  readonly text: string;
  readonly writing: Writing;
  readonly color: string;
  /** Its rim is drawn thicker. */
  readonly isWarning?: boolean | undefined;
}

/** What a kind of mark asks for: its labels, and the lines that no label of others may hide. */
export interface Labelling {
  readonly labels: readonly DrawnLabel[];
  readonly lines?: readonly LabelLine[] | undefined;
}

/** Size of a slip of paper with this text on it, CSS px. */
export function slipSize(text: string, writing: Writing = 'figure'): Vec {
  const { letter, margin, height } = WRITING[writing];
  return [text.length * letter + margin, height];
}

type Said = Pick<DrawnLabel, 'key' | 'text' | 'color'> & Partial<Pick<DrawnLabel, 'writing' | 'isWarning'>>;

/** A label about a place of the screen: on it or around it. */
export function labelAround(at: Vec, said: Said): DrawnLabel {
  return labelAt((size) => placesAround(at, size), said);
}

export function labelAt(
  places: (size: Vec) => readonly LabelPlace[],
  { writing = 'figure', ...said }: Said,
): DrawnLabel {
  const size = slipSize(said.text, writing);
  return { ...said, writing, size, places: places(size) };
}

interface LabelsProps {
  readonly labels: readonly DrawnLabel[];
  readonly placed: readonly PlacedLabel[];
  readonly palette: Palette;
}

/** The words and figures of the drawing, each on a slip of paper so that it reads on any picture; what had no room is a small mark. */
export function Labels({ labels, placed, palette }: LabelsProps) {
  return (
    <g data-testid="labels">
      {placed.map(({ key, from, at }, i) =>
        from ? (
          <path
            key={key}
            d={`M${from[0]} ${from[1]}L${at[0]} ${at[1]}`}
            stroke={labels[i]!.color}
            strokeWidth={1}
            fill="none"
          />
        ) : null,
      )}
      {placed.map(({ key, at, isFolded }, i) =>
        isFolded ? (
          <FoldedMark key={key} at={at} color={labels[i]!.color} palette={palette} />
        ) : (
          <Slip key={key} at={at} label={labels[i]!} palette={palette} />
        ),
      )}
    </g>
  );
}

function Slip({
  at,
  label: { key, text, size, writing, color, isWarning },
  palette,
}: {
  at: Vec;
  label: DrawnLabel;
  palette: Palette;
}) {
  const [width, height] = size;
  const isWord = writing === 'word';
  return (
    <g transform={`translate(${at[0]} ${at[1]})`} data-testid={`label-${key}`}>
      <rect
        x={-width / 2}
        y={-height / 2}
        width={width}
        height={height}
        rx={isWord ? 4 : 3}
        fill={palette.paper}
        fillOpacity={isWord ? 0.92 : 1}
        stroke={color}
        strokeWidth={isWarning ? 2 : 1}
      />
      <text
        textAnchor="middle"
        dominantBaseline="central"
        fill={isWord ? palette.ink : color}
        fontFamily={isWord ? FONT.text : FONT.figures}
        fontSize={isWord ? 11 : 12.5}>
        {text}
      </text>
    </g>
  );
}

function FoldedMark({ at, color, palette }: { at: Vec; color: string; palette: Palette }) {
  return (
    <g transform={`translate(${at[0]} ${at[1]})`} data-testid="folded-label">
      <circle r={MARK_SIZE[0] / 2 - 1} fill={palette.paper} stroke={color} strokeWidth={1} />
      <path d="M-3.5 0h.01M0 0h.01M3.5 0h.01" stroke={color} strokeWidth={2} strokeLinecap="round" />
    </g>
  );
}

/** The mark that is pointed at, opened: its words over everything, clear of the pointer (of the magnified patch, `clear` px) and on the bench. */
export function OpenedLabel({
  labels,
  placed,
  palette,
  pointer,
  viewport,
  clear,
}: LabelsProps & { readonly pointer: Vec | undefined; readonly viewport: Viewport; readonly clear: number }) {
  const reached = placed.filter(
    ({ at, isFolded }) => isFolded && pointer && distance(at, pointer) <= MARK_SIZE[0] * 0.75,
  );
  return (
    <g data-testid="opened-labels">
      {reached.map(({ key }, i) => {
        const label = labels.find((other) => other.key === key)!;
        const [width, height] = label.size;
        const [x, y] = [pointer![0], pointer![1] - clear - (i + 0.5) * (height + 3)];
        return (
          <Slip
            key={key}
            at={[Math.min(viewport.width - width / 2, Math.max(width / 2, x)), Math.max(height / 2, y)]}
            label={label}
            palette={palette}
          />
        );
      })}
    </g>
  );
}
