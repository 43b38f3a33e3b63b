import { useMemo } from 'react';
import { listProposedLines, sharedIn, type SharedMark } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import { axesSeenFrom, type Side } from '@/core/space';
import { formatLength } from '@/core/units';
import { shapeIn } from '../tools/share-tool';
import { toScreen } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { labelAround, type Labelling } from './labels';
import { clipped } from './marks';

interface SharedProps extends DrawnProps {
  /** In full, with the one that is pointed at before all; else they are guides among others. */
  readonly chosen?: string | undefined;
  readonly full: boolean;
}

const seenAs = ({ fitted, job, derived }: DrawnProps) => sharedIn(fitted, { job, derived });

/** Shared lines as long dashes through the view, shared places as rings; in full also where they were pointed at, and what that leaves over. */
export function SharedMarks({ chosen, full, ...drawn }: SharedProps) {
  return (
    <g fill="none" data-testid="shared-marks">
      {seenAs(drawn).map((mark) => (
        <g key={mark.feature.id} data-testid={`shared-${mark.feature.name}`}>
          <Standing mark={mark} drawn={drawn} isChosen={mark.feature.id === chosen} />
          {full ? <SeenPlaces mark={mark} drawn={drawn} /> : null}
        </g>
      ))}
      {full ? <ProposedEnds {...drawn} /> : null}
    </g>
  );
}

/** How far a pencil line goes on beyond what it is about, CSS px. */
const BEYOND = 26;

/** Where what is drawn here ends, as in other views: in pencil until it is taken. */
function ProposedEnds({ job, derived, fitted, viewport, palette }: DrawnProps) {
  const proposed = useMemo(() => listProposedLines(job, derived), [job, derived]);
  return proposed.map(({ along, end, seen }) => {
    const here = seen.filter(({ view }) => view === fitted.source.id).map(({ at }) => toScreen(viewport, at));
    const line = here[0] && pencilLine(here[0], here[1], shapeIn(along, fitted.source.side as Side) === 'level');
    if (!line) return null;
    const d = `M${line.map((place) => place.join(' ')).join('L')}`;
    return (
      <g key={`${along} ${end}`} data-testid="pencil-line">
        <path d={d} stroke={palette.halo} strokeWidth={3.2} strokeOpacity={0.7} />
        <path d={d} stroke={palette.quiet} strokeWidth={1.2} strokeDasharray="7 1.5 3 1" />
      </g>
    );
  });
}

/** Along an edge and a little beyond; through one place as the line runs. */
function pencilLine(from: Vec, to: Vec | undefined, level: boolean): readonly [Vec, Vec] {
  const [dx, dy] = to ? [to[0] - from[0], to[1] - from[1]] : level ? [1, 0] : [0, 1];
  const size = Math.hypot(dx, dy) || 1;
  const beyond: Vec = [(dx / size) * BEYOND, (dy / size) * BEYOND];
  const end = to ?? from;
  return [
    [from[0] - beyond[0], from[1] - beyond[1]],
    [end[0] + beyond[0], end[1] + beyond[1]],
  ];
}

function Standing({ mark, drawn, isChosen }: { mark: SharedMark; drawn: DrawnProps; isChosen: boolean }) {
  const { palette } = drawn;
  const line = lineOnScreen(mark, drawn);
  const place = mark.place && toScreen(drawn.viewport, drawn.fitted.fit.toSheet(mark.place));
  const d = line ? `M${line.map((end) => end.join(' ')).join('L')}` : place ? ringAt(place) : undefined;
  if (!d) return null;
  return (
    <>
      <path d={d} stroke={palette.halo} strokeWidth={isChosen ? 5 : 3.4} strokeOpacity={0.75} />
      <path
        d={d}
        stroke={palette.straw}
        strokeWidth={isChosen ? 2.4 : 1.5}
        strokeDasharray={line ? '22 5 4 5' : undefined}
      />
    </>
  );
}

const ringAt = ([x, y]: Vec) => `M${x - 7} ${y}a7 7 0 1 0 14 0a7 7 0 1 0-14 0`;

function lineOnScreen({ line }: SharedMark, { viewport, fitted }: DrawnProps): readonly [Vec, Vec] | undefined {
  if (!line) return undefined;
  const [a, b] = [line.a, line.b].map((end) => toScreen(viewport, fitted.fit.toSheet(end))) as [Vec, Vec];
  return clipped(a, b, viewport);
}

/** What is left over is drawn larger than life: so many CSS px for a millimetre that shows as one, at the most this many. */
const LARGER = 12;
const LONGEST = 46;

function SeenPlaces({ mark, drawn }: { mark: SharedMark; drawn: DrawnProps }) {
  const { viewport, palette, derived, fitted } = drawn;
  const standing = derived.arranged.stands.get(fitted.source.id);
  return mark.seen.map(({ id, at }) => {
    const [x, y] = toScreen(viewport, at);
    const left = standing?.seen.find(({ seen }) => seen === id);
    const bar = left && barOf(left.off, standing?.side, scaleOnScreen(drawn));
    const d = `M${x - 5} ${y}h10M${x} ${y - 5}v10`;
    return (
      <g key={id} data-testid="seen-place">
        <path d={d} stroke={palette.halo} strokeWidth={4} strokeOpacity={0.8} />
        <path d={d} stroke={left?.suspect ? palette.berry : palette.tide} strokeWidth={1.8} />
        {bar ? (
          <path d={`M${x} ${y}l${bar.join(' ')}`} stroke={palette.berry} strokeWidth={3} data-testid="leftover" />
        ) : null}
      </g>
    );
  });
}

/** CSS px a millimetre, about where one looks. */
function scaleOnScreen({ viewport, fitted }: DrawnProps): number {
  const { width, height } = fitted.sheet;
  const [a, b] = [0.4, 0.6].map((share): Vec => [share * width, height / 2]) as [Vec, Vec];
  const [p, q] = [a, b].map((at) => fitted.fit.toPlane(at)) as [Vec, Vec];
  const far = Math.hypot(q[0] - p[0], q[1] - p[1]);
  const [s, t] = [a, b].map((at) => toScreen(viewport, at)) as [Vec, Vec];
  return Math.hypot(t[0] - s[0], t[1] - s[1]) / far;
}

/** From where it was pointed at towards where all have it; none where that is too little to see. */
function barOf(
  off: readonly { readonly direction: string; readonly mm: number }[],
  side: Side | undefined,
  perMm: number,
): Vec | undefined {
  const axes = side
    ? axesSeenFrom(side)
    : ([
        { direction: 'edge', sign: 1 },
        { direction: 'up', sign: 1 },
      ] as const);
  const [right, up] = axes.map(
    ({ direction, sign }) => sign * (off.find((each) => each.direction === direction)?.mm ?? 0),
  ) as [number, number];
  const size = Math.hypot(right, up) * perMm * LARGER;
  if (!(size > 2)) return undefined;
  const factor = (-perMm * LARGER * Math.min(size, LONGEST)) / size;
  return [right * factor, -up * factor];
}

/** What each is called and where it lies; in full also of those that nothing places yet. */
export function sharedLabels(drawn: DrawnProps): Labelling {
  const { palette, job, viewport } = drawn;
  return {
    labels: seenAs(drawn).flatMap((mark) => {
      const { feature, value } = mark;
      const at = labelPlace(mark, drawn);
      if (!at) return [];
      const where = value && formatLength(value.value, job.units, value.sigma > 0 ? value.sigma : undefined);
      const text = where === undefined ? feature.name : `${feature.name} ${where}`;
      const inside: Vec = [Math.min(viewport.width - 90, Math.max(90, at[0])), at[1] - 14];
      return [labelAround(inside, { key: `shared-${feature.id}`, text, color: palette.straw, writing: 'word' })];
    }),
  };
}

function labelPlace(mark: SharedMark, drawn: DrawnProps): Vec | undefined {
  const line = lineOnScreen(mark, drawn);
  if (line) return line[0]![0] < line[1]![0] ? line[0] : line[1];
  if (mark.place) return toScreen(drawn.viewport, drawn.fitted.fit.toSheet(mark.place));
  return mark.seen[0] && toScreen(drawn.viewport, mark.seen[0].at);
}
