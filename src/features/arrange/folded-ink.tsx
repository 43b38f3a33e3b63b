import { useMemo } from 'react';
import { labelAround, Labels } from '@/bench/overlay/labels';
import { StoodInk } from '@/bench/overlay/by-eye-ink';
import { CurveInk } from '@/bench/overlay/curve-marks';
import { shapesPath } from '@/bench/overlay/path-data';
import { placeLabels } from '@/bench/overlay/place-labels';
import { useJob } from '@/bench/use-session';
import {
  curvesLookedAt,
  curvesSeenIn,
  listByEye,
  drawnLookedAt,
  shapesDrawnIn,
  sharedIn,
  type FoldedView,
  type Folding,
} from '@/core/derive';
import { applied, composed, cross, distance, mix, subtract, type Affine, type Line, type Vec } from '@/core/geometry';
import type { Job } from '@/core/job';
import { formatLength } from '@/core/units';
import { usePalette } from '@/ui/palette';
import { matrixOf } from './look-ways';

interface InkProps {
  readonly folding: Folding;
  readonly views: readonly FoldedView[];
  readonly toScreen: Affine;
  /** CSS px. */
  readonly size: Vec;
}

/** On less they would hide what they speak of. CSS px */
const ROOM_FOR_TAGS = 560;

const asItIs = (place: Vec) => place;

/** What is drawn on all views, with their rims and the lines that they share. */
export function FoldedInk({ folding, views, toScreen, size }: InkProps) {
  return (
    <svg width={size[0]} height={size[1]} aria-hidden style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
      {views.map((view) => (
        <ViewInk key={view.fitted.source.id} view={view} onto={composed(toScreen, view.look)} />
      ))}
      <SpaceInk folding={folding} toScreen={toScreen} />
      {size[0] < ROOM_FOR_TAGS ? null : <Tags views={views} toScreen={toScreen} size={size} />}
    </svg>
  );
}

/** What shared lines are called and where they lie, each once: at its end in the first view that shows it. */
function Tags({ views, toScreen, size }: Omit<InkProps, 'folding'>) {
  const palette = usePalette();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const labels = views.flatMap(({ fitted, rim, look }) =>
    sharedIn(fitted, { job, derived }).flatMap(({ feature, line, value }) => {
      const isFirst = feature.seen.length === 0 || feature.seen[0]!.view === fitted.source.id;
      const end = line && isFirst ? endWithin(rim, line) : undefined;
      if (!end) return [];
      const where = value && formatLength(value.value, job.units, value.sigma > 0 ? value.sigma : undefined);
      const text = where === undefined ? feature.name : `${feature.name} ${where}`;
      const at = applied(composed(toScreen, look), end);
      return [labelAround(at, { key: `folded-${feature.id}`, text, color: palette.straw, writing: 'word' })];
    }),
  );
  return <Labels labels={labels} placed={placeLabels(labels, [], [size[0], size[1]])} palette={palette} />;
}

/** From here on the views stand around the thing, and what stands inside them is where it is. */
const FOLDED_UP = 0.999;

/** Curves in space, where they stand among the views. */
function SpaceInk({ folding, toScreen }: Pick<InkProps, 'folding' | 'toScreen'>) {
  const palette = usePalette();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const isFolded = folding.fold >= FOLDED_UP;
  const curves = useMemo(
    () => (isFolded ? curvesLookedAt({ job, derived }, folding) : []),
    [isFolded, job, derived, folding],
  );
  const drawn = useMemo(
    () => (isFolded ? drawnLookedAt({ job, derived }, folding) : []),
    [isFolded, job, derived, folding],
  );
  return (
    <>
      {drawn.map(({ view, layer, look, shapes }) => (
        <path
          key={`${view} ${layer}`}
          data-testid={`space-drawn-${view}`}
          d={shapesPath(shapes, asItIs)}
          transform={matrixOf(composed(toScreen, look))}
          fill="none"
          stroke={palette.berry}
          strokeWidth={1.6}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {curves.map(({ curve, paths }) => (
        <CurveInk
          key={curve.id}
          name={`space-${curve.name}`}
          paths={paths}
          fromPlane={asItIs}
          transform={matrixOf(toScreen)}
          palette={palette}
        />
      ))}
    </>
  );
}

function ViewInk({ view, onto }: { view: FoldedView; onto: Affine }) {
  const palette = usePalette();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const { fitted, rim } = view;
  const { id } = fitted.source;
  const outlines = useMemo(() => shapesPath(shapesDrawnIn(fitted, { job, derived }), asItIs), [job, derived, fitted]);
  const lines = useMemo(() => sharedIn(fitted, { job, derived }), [fitted, job, derived]);
  const curves = useMemo(
    () => curvesSeenIn(fitted, { job, derived }).filter(({ curve }) => !isDrawnIn(curve.of, job, fitted.view.plane)),
    [fitted, job, derived],
  );
  const clip = `folded-clip-${id}`;
  return (
    <g data-testid={`folded-ink-${fitted.source.name}`} fill="none">
      <Rim view={view} onto={onto} />
      <g transform={matrixOf(onto)}>
        <clipPath id={clip}>
          <path d={`M${rim.map((at) => at.join(' ')).join('L')}Z`} />
        </clipPath>
        <g clipPath={`url(#${clip})`}>
          {lines.map(({ feature, line }) =>
            line ? (
              <path
                key={feature.id}
                data-testid={`folded-line-${feature.name}`}
                d={`M${line.a.join(' ')}L${line.b.join(' ')}`}
                stroke={palette.straw}
                strokeWidth={1.4}
                strokeDasharray="18 6"
                vectorEffect="non-scaling-stroke"
              />
            ) : null,
          )}
        </g>
        <path
          d={outlines}
          stroke={palette.halo}
          strokeWidth={4}
          strokeOpacity={0.7}
          vectorEffect="non-scaling-stroke"
        />
        <path d={outlines} stroke={palette.berry} strokeWidth={2} vectorEffect="non-scaling-stroke" />
        {listByEye(fitted.view.plane, { job, derived }).map((seen) => (
          <StoodInk key={seen.stood.id} seen={seen} fromPlane={asItIs} palette={palette} />
        ))}
      </g>
      {curves.map(({ curve, paths }) => (
        <CurveInk
          key={curve.id}
          name={`folded-curve-${curve.name}`}
          paths={paths}
          fromPlane={asItIs}
          transform={matrixOf(onto)}
          palette={palette}
        />
      ))}
      {lines.map(({ feature, place }) => {
        if (!place) return null;
        const [x, y] = applied(onto, place);
        return (
          <circle
            key={feature.id}
            cx={x}
            cy={y}
            r={4.5}
            stroke={palette.straw}
            strokeWidth={1.6}
            fill={palette.paper}
          />
        );
      })}
    </g>
  );
}

const isDrawnIn = (of: readonly string[], { outlines }: Pick<Job, 'outlines'>, on: string) =>
  outlines.some(({ id, plane }) => plane === on && of.includes(id));

/** Where a line comes into a view's rim: its left end, or its lower one. */
function endWithin(rim: readonly Vec[], { a, b }: Line): Vec | undefined {
  const along = subtract(b, a);
  const crossings = rim.flatMap((from, i) => {
    const side = subtract(rim[(i + 1) % rim.length]!, from);
    const turned = cross(along, side);
    if (turned === 0) return [];
    const [t, u] = [cross(subtract(from, a), side) / turned, cross(subtract(from, a), along) / turned];
    return u >= 0 && u <= 1 ? [t] : [];
  });
  return crossings.length > 1 ? mix(a, b, Math.min(...crossings)) : undefined;
}

/** A double rim where a view joins the one fit, a wavy one where it stands by its own zero, a plain one else. */
function Rim({ view: { rim, standing }, onto }: { view: FoldedView; onto: Affine }) {
  const palette = usePalette();
  const corners = rim.map((at) => applied(onto, at));
  const straight = `M${corners.map((at) => at.join(' ')).join('L')}Z`;
  if (standing.byZero.length > 0)
    return <path d={wavy(corners)} stroke={palette.quiet} strokeWidth={1.6} data-testid="rim-assumed" />;
  if (!standing.joins) return <path d={straight} stroke={palette.quiet} strokeWidth={1.4} data-testid="rim-own" />;
  return (
    <>
      <path d={straight} stroke={palette.hedge} strokeWidth={5} data-testid="rim-joined" />
      <path d={straight} stroke={palette.paper} strokeWidth={2} />
    </>
  );
}

/** Length and height of a wave, CSS px. */
const WAVE = [12, 2.6] as const;

function wavy(corners: readonly Vec[]): string {
  const places = corners.flatMap((from, i) => {
    const to = corners[(i + 1) % corners.length]!;
    const long = distance(from, to);
    const steps = Math.min(400, Math.max(2, Math.round((4 * long) / WAVE[0])));
    const [nx, ny] = long > 0 ? [-(to[1] - from[1]) / long, (to[0] - from[0]) / long] : [0, 0];
    return Array.from({ length: steps }, (_, k): Vec => {
      const [x, y] = mix(from, to, k / steps);
      const off = WAVE[1] * Math.sin((k * Math.PI) / 2);
      return [x + off * nx, y + off * ny];
    });
  });
  return `M${places.map((at) => `${at[0].toFixed(1)} ${at[1].toFixed(1)}`).join('L')}Z`;
}
