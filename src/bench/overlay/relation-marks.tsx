import type { Derived, FittedView } from '@/core/derive';
import { distance, isFullCircle, pointAt, type Piece, type Vec } from '@/core/geometry';
import type { Job } from '@/core/job';
import { CENTRE, type Outline, type Shape } from '@/core/outline';
import { TOO_FAR, type Relation, type RelationEnd } from '@/core/relate';
import { formatLength, type Units } from '@/core/units';
import { markForRelation } from '@/ui/relation-words';
import { layingOf } from '../laying';
import { toScreen, type Viewport } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { labelAround, type Labelling } from './labels';
import { pathData } from './path-data';
import { benchTransform } from './selection';

interface Slip {
  readonly words: string;
  readonly at: Vec;
  readonly isWarning?: boolean;
}

const indexOfSegment = (outline: Outline, segment: string) =>
  outline.shape === 'chain' ? outline.nodes.findIndex(({ id }) => id === segment) : -1;

function findPiece(end: RelationEnd, outline: Outline, shape: Shape): Piece | undefined {
  if (end.node !== undefined) return undefined;
  return end.segment === undefined ? shape.pieces[0] : shape.pieces[indexOfSegment(outline, end.segment)];
}

function placeOf(end: RelationEnd, outline: Outline, shape: Shape): Vec | undefined {
  if (end.node === CENTRE) return shape.nodes[0];
  if (end.node !== undefined) return shape.nodes[indexOfSegment(outline, end.node)];
  const piece = findPiece(end, outline, shape);
  return piece && pointAt(piece, isFullCircle(piece) ? 0.125 : 0.5);
}

/** What an end names, where that is drawn on the plane of the view. */
function knownOf(end: RelationEnd, job: Job, derived: Derived, { view }: FittedView) {
  const [outline, shape] = [job.outlines.find(({ id }) => id === end.outline), derived.shapes.get(end.outline)];
  return outline?.plane === view.plane && shape ? { outline, shape } : undefined;
}

function screenPlaceOf(
  end: RelationEnd,
  job: Job,
  derived: Derived,
  fitted: FittedView,
  viewport: Viewport,
): Vec | undefined {
  const it = knownOf(end, job, derived, fitted);
  const place = it && placeOf(end, it.outline, it.shape);
  return place && toScreen(viewport, fitted.fit.toSheet(place));
}

/** What is chosen to say something of it, drawn thick. */
export function ChosenMarks({
  job,
  derived,
  fitted,
  viewport,
  palette,
  chosen,
}: DrawnProps & { readonly chosen: readonly RelationEnd[] }) {
  const { fromPlane } = layingOf(viewport, fitted.fit);
  return (
    <g data-testid="chosen-marks">
      {chosen.map((end, i) => {
        const it = knownOf(end, job, derived, fitted);
        const piece = it && findPiece(end, it.outline, it.shape);
        const at = screenPlaceOf(end, job, derived, fitted, viewport);
        if (piece)
          return (
            <g key={i} transform={benchTransform(viewport)} fill="none">
              <path
                d={pathData([piece], false, fromPlane)}
                stroke={palette.halo}
                strokeWidth={8}
                strokeOpacity={0.8}
                vectorEffect="non-scaling-stroke"
              />
              <path
                d={pathData([piece], false, fromPlane)}
                stroke={palette.berry}
                strokeWidth={5}
                vectorEffect="non-scaling-stroke"
              />
            </g>
          );
        return at ? (
          <rect
            key={i}
            x={at[0] - 7}
            y={at[1] - 7}
            width={14}
            height={14}
            fill={palette.paper}
            stroke={palette.berry}
            strokeWidth={3}
          />
        ) : null;
      })}
    </g>
  );
}

/** What holds, in words beside what it holds of, and where it moved what was drawn farther than the picture allows. */
export function relationLabels({ job, derived, fitted, viewport, palette }: DrawnProps): Labelling {
  const screenOf = (end: RelationEnd) => screenPlaceOf(end, job, derived, fitted, viewport);
  const moved = (derived.related.get(fitted.view.plane)?.moves ?? [])
    .filter(({ sigmas, plane }) => sigmas > TOO_FAR && plane === fitted.view.plane)
    .map((move): Slip => ({
      words: `moved ${fitted.fit.scaled ? formatLength(move.distance, job.units) : `${move.distance.toFixed(1)} px`}`,
      at: toScreen(viewport, fitted.fit.toSheet(move.at)),
      isWarning: true,
    }));
  const said = job.relations.flatMap((relation) => listSlips(relation, job, screenOf, job.units));
  const slips = [...moved, ...said, ...listSmooth(job, derived, fitted, viewport)]
    .filter(({ at: [x, y] }) => x > -40 && y > -20 && x < viewport.width + 40 && y < viewport.height + 20)
    .filter(isFirstSaid);
  return {
    labels: slips.map(({ words, at, isWarning }, i) =>
      labelAround(at, {
        key: `holds-${i}`,
        text: words,
        writing: 'word',
        color: isWarning ? palette.straw : palette.hedge,
        isWarning,
      }),
    ),
  };
}

/** What holds of one thing twice, of two others each, is said once. */
const isFirstSaid = (slip: Slip, i: number, all: readonly Slip[]) =>
  all.findIndex(({ words, at }) => words === slip.words && distance(at, slip.at) < 1) === i;

/** Points at which a curve runs on smoothly from what is no curve. */
function listSmooth(job: Job, { shapes }: Derived, { view, fit }: FittedView, viewport: Viewport): readonly Slip[] {
  return job.outlines.flatMap((outline): Slip[] => {
    const shape = shapes.get(outline.id);
    if (outline.shape !== 'chain' || outline.plane !== view.plane || !shape) return [];
    const isCurve = (i: number) =>
      outline.segments[outline.closed ? (i + outline.segments.length) % outline.segments.length : i]?.kind === 'curve';
    const isJoint = (i: number) => outline.closed || (i > 0 && i < outline.nodes.length - 1);
    return outline.nodes.flatMap((node, i) =>
      node.smooth && isJoint(i) && isCurve(i - 1) !== isCurve(i) && shape.nodes[i]
        ? [{ words: 'smooth', at: toScreen(viewport, fit.toSheet(shape.nodes[i])) }]
        : [],
    );
  });
}

/** The corner at which two segments of a chain meet, if a relation is about two such. */
function findJoint({ on: [a, b, more] }: Relation, job: Job): RelationEnd | undefined {
  const chain = job.outlines.find(({ id }) => id === a?.outline);
  if (!a?.segment || !b?.segment || more || a.outline !== b.outline || chain?.shape !== 'chain') return undefined;
  const follows = (first: string, second: string) =>
    chain.nodes[(indexOfSegment(chain, first) + 1) % chain.nodes.length]?.id === second;
  if (follows(a.segment, b.segment)) return { outline: chain.id, node: b.segment };
  return follows(b.segment, a.segment) ? { outline: chain.id, node: a.segment } : undefined;
}

/** One slip for each thing that a relation is about; joints have one, where they are. */
function listSlips(
  relation: Relation,
  job: Job,
  screenOf: (end: RelationEnd) => Vec | undefined,
  units: Units,
): readonly Slip[] {
  const words = markForRelation(relation, units);
  const joint = findJoint(relation, job);
  return (joint ? [joint] : relation.on).flatMap((end) => {
    const at = screenOf(end);
    return at ? [{ words, at }] : [];
  });
}
