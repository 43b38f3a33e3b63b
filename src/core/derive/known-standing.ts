import { axesSeenFrom, normalOf, vectorAlong, type Vec3 } from '../space';
import type { FittedView } from './fits';
import { onEdge, type Edges } from './on-edges';
import type { KnownStanding, SeenPlane } from './derived';
import { poseAmong, standsBySide, type Standing, type StandingBySide } from './standing';

/**
 * Where a plane, as its views see it, stands for what relates its outlines to those of others: by a view that joins the one fit of all, along the directions along which something says how it stands; or on an edge,
 * where what is drawn on it lies on it. Views that stand by themselves are laid to the others where that comes closest, which is no place to hold anything exactly. Weak: the doubt of an edge
 * under a view is not counted, and an outline that is made of others carries none.
 */
export function standingIn({ views }: Pick<SeenPlane, 'views'>, standing: Edges): KnownStanding | undefined {
  const joining = views
    .map((fitted) => ({ fitted, stands: standing.derived.arranged.stands.get(fitted.source.id) }))
    .find(({ stands }) => stands?.joins);
  if (!joining?.stands) return views.flatMap((fitted) => onDrawnEdge(fitted, standing) ?? [])[0];
  const { fitted, stands } = joining;
  return {
    pose: poseAmong(stands, fitted.fit),
    shows: standsBySide(stands) ? toldBySide(stands) : toldOnEdge(stands),
    by: { view: stands.view, fit: fitted.fit, poseBy: (fit) => poseAmong(stands, fit) },
  };
}

const toldBySide = ({ side, byZero }: StandingBySide): readonly Vec3[] =>
  axesSeenFrom(side)
    .filter(({ direction }) => !byZero.includes(direction))
    .map(({ direction }) => vectorAlong(direction));

/** Along the edge and aside of it, and upwards where something says how high it stands. */
const toldOnEdge = ({ frame, byZero }: Standing): readonly Vec3[] => [
  frame.x,
  normalOf(frame),
  ...(byZero.includes('up') ? [] : [frame.y]),
];

function onDrawnEdge({ source }: FittedView, { job, derived }: Edges): KnownStanding | undefined {
  const edge = job.outlines.find(({ id }) => id === source.standsOn?.outline);
  if (!edge || edge.shape === 'made') return undefined;
  const stands = onEdge(source, { job, derived });
  if (!stands || typeof stands === 'string') return undefined;
  // A plan that stands by its own zero is in no frame with views that join each other.
  const all = [...derived.arranged.stands.values()];
  const isInFrame = all.every(({ joins }) => !joins) || derived.arranged.stands.get(stands.under.view)?.joins === true;
  const { pose } = stands;
  return isInFrame ? { pose, shows: [pose.x, pose.y, normalOf(pose)] } : undefined;
}
