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

/** How shaky the hand is that pointed in a view, against what was assumed; without a view in the first that shows the plane. */
export type SteadinessIn = (view?: string) => number;

export function bySteadyHand(place: PointedPlace, steadinessIn: SteadinessIn): PointedPlace {
  const factor = steadinessIn(place.view);
  return factor === 1 ? place : { ...place, sigma: place.sigma * factor };
}

/**
 * The outline with every pointed place as well known as it can be by a hand that is `steadinessIn` its view times as shaky as assumed. Where a line meets an arc, or an arc another one, without a
 * kink that shows, nobody sees where: along the edge such a contact is known to √(2·s/κ) only, with s what is known across the edge and κ how much more one piece bends than the other
 * (the way after which they are s apart). Sheet px. Weak: where a chain was pointed in several views contacts are known as they were pointed.
 */
export function asPointed<O extends Outline>(outline: O, steadinessIn: SteadinessIn): O {
  const steady = mapPlaces(outline, (place) => mapPointed(place, (pointed) => bySteadyHand(pointed, steadinessIn)));
  return steady.shape === 'chain' ? (withContacts(steady) as O & Chain) : steady;
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
  // What was caught by a corner of the picture is one.
  const isCorner = !place.edge && place.sigma < EYE;
  if (isCorner || !isPlain(before) || !isPlain(after)) return place;
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
