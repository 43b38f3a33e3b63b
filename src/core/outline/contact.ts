import { add, angleOf, curvatureAt, pieceLength, signedAngle, tangentAt, type Piece, type Vec } from '../geometry';
import { mapPlaces, type Chain, type Outline } from './outline';
import { listPointed, mapPointed, type Placing, type PointedPlace } from './place';
import { shapeOf } from './shape';

/** The sheet itself as the plane: contacts are seen in the picture. */
const ON_SHEET: Omit<Placing, 'nodeAt'> = { scaled: false, toPlane: (at) => at };
/** A photographed edge is spread over about a pixel: what departs from it by less than half of that is not seen. Sheet px, one sigma. */
const EYE = 0.5;
/** A joint turns by this much, radians, before its kink is anything but a contact that was badly pointed. */
const NO_KINK = 0.3;
/** However slowly two pieces part, their joint is known to this share of the shorter one. */
const MOST_ALONG = 0.25;

/** How well places of a plane are known, beyond what is said with each of them. Without a view in the first that shows the plane. */
export interface Knowing {
  /** How shaky the hand is that pointed in a view, against what was assumed. */
  steadinessIn(view?: string): number;
  /** How far what is seen of an edge at a place may lie from where a drawing has it. Sheet px, one sigma. */
  edgesKnownTo(place: PointedPlace): number;
}

export function bySteadyHand(place: PointedPlace, { steadinessIn }: Pick<Knowing, 'steadinessIn'>): PointedPlace {
  const factor = steadinessIn(place.view);
  return factor === 1 ? place : { ...place, sigma: place.sigma * factor };
}

/** What was caught by a corner of the picture, or by a rim that was followed, is known better both ways than any hand points. */
const isCaughtWhole = ({ edge, sigma }: PointedPlace) => !edge && sigma < EYE;

/**
 * The outline with every pointed place as well known as it can be: by its hand, and by what is seen of edges. Where a line meets an arc, or an arc another one, without a
 * kink that shows, nobody sees where: along the edge such a contact is known to √(2·s/κ) only, with s what is known across the edge and κ how much more one piece bends than the other
 * (the way after which they are s apart). Sheet px. Weak: where a chain was pointed in several views contacts are known as they were pointed; a contact that a
 * hand pointed freely is widened across the edge as if the picture had caught it.
 */
export function asPointed<O extends Outline>(outline: O, knowing: Knowing): O {
  const each = <T extends Outline>(of: T, change: (pointed: PointedPlace) => PointedPlace): T =>
    mapPlaces(of, (place) => mapPointed(place, change));
  const steady = each(outline, (place) => bySteadyHand(place, knowing));
  const met = steady.shape === 'chain' ? (withContacts(steady) as O & Chain) : steady;
  return each(met, (place) => bySeenEdge(place, knowing.edgesKnownTo(place)));
}

/** A place that the picture caught is known across its edge no better than what is seen of edges. */
function bySeenEdge(place: PointedPlace, known: number): PointedPlace {
  if (known === 0) return place;
  if (place.edge) return { ...place, edge: { ...place.edge, sigma: Math.hypot(place.edge.sigma, known) } };
  return isCaughtWhole(place) ? { ...place, sigma: Math.hypot(place.sigma, known) } : place;
}

function withContacts(chain: Chain): Chain {
  if (!chain.segments.some(({ kind }) => kind === 'arc' || kind === 'tangent') || !isOfOneView(chain)) return chain;
  const { pieces } = shapeOf(chain, ON_SHEET);
  const nodes = chain.nodes.map((node, i) => {
    const [before, after] = [pieces[i - 1] ?? (chain.closed ? pieces.at(-1) : undefined), pieces[i]];
    return before && after && node.place.kind === 'pointed'
      ? { ...node, place: atContact(node.place, before, after) }
      : node;
  });
  return { ...chain, nodes };
}

/** Whether all that its nodes stand on was pointed in one view: contacts are seen in one picture. */
function isOfOneView({ nodes }: Chain): boolean {
  const seen = new Set<string>();
  const views = nodes.flatMap(({ place }) => listPointed(place, () => undefined, seen).map(({ view }) => view));
  return new Set(views).size <= 1;
}

const isPlain = ({ kind }: Piece) => kind === 'line' || kind === 'arc';

function atContact(place: PointedPlace, before: Piece, after: Piece): PointedPlace {
  if (isCaughtWhole(place) || !isPlain(before) || !isPlain(after)) return place;
  const across = place.edge?.sigma ?? place.sigma;
  const seen = Math.max(across, EYE);
  const bend = Math.abs(curvatureAt(after, 0) - curvatureAt(before, 1));
  const [arrives, leaves] = [tangentAt(before, 1), tangentAt(after, 0)];
  // A contact that is off makes a kink by itself: what of it can come from that says nothing.
  const kink = Math.max(
    0,
    Math.abs(signedAngle(angleOf(leaves) - angleOf(arrives))) - Math.max(NO_KINK, 2.5 * Math.sqrt(2 * seen * bend)),
  );
  if (!(bend > 0) || kink >= Math.PI / 2) return place;
  const along = Math.min(
    wayApart(seen, bend, Math.tan(kink / 2)),
    MOST_ALONG * Math.min(pieceLength(before), pieceLength(after)),
  );
  if (along <= place.sigma) return place;
  // A line shows which way the edge runs; an arc turns as its ends slide.
  return {
    ...place,
    sigma: along,
    edge: {
      normal:
        place.edge?.normal ??
        angleOf(normalTo(before.kind === 'line' ? arrives : after.kind === 'line' ? leaves : add(arrives, leaves))),
      sigma: across,
    },
  };
}

const normalTo = ([x, y]: Vec): Vec => [-y, x];

/** The way t after which a bend and a kink are so far apart: ½·bend·t² + kink·t = apart. */
const wayApart = (apart: number, bend: number, kink: number) =>
  (2 * apart) / (kink + Math.sqrt(kink * kink + 2 * bend * apart));
