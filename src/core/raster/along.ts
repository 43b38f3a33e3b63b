import { median } from '../basics';
import { distance, type Vec } from '../geometry';
import { colourAt, type Colour, type ColourPicture } from './colour-picture';
import { findEdgeAcross, type FoundEdge } from './edge';
import { findEdgeNear } from './edge-near';
import type { Pyramid } from './pyramid';
import { middlesOf } from './stretches';

/** An edge is followed in steps of this share of the picture's diagonal, and has to go on over so much of it. */
const STEP = 0.006;
const LEAST_LENGTH = 0.12;
/** Steps without an edge after which it has ended: a finger, a mark, a shadow across it. */
const MOST_MISSED = 3;
/** How far off its way an edge is looked for, px, and how many of the last steps say which way that is. */
const ASTRAY = 4;
const REMEMBERED = 8;
/** What is straight and drawn by a lens does not bend by more than this share of its length. */
const MOST_BOWED = 0.03;
/** Places lie off the bend that fits them best by less than this, root mean square: px. */
const MOST_ROUGH = 0.7;
/** How many places are kept. */
const PLACES = 9;

/**
 * Places along the straight edge that passes a place, as far as it goes, in their order: for what a lens does to it. Undefined where no edge passes, where it soon ends, or bends by more than a lens
 * bends what is straight. Sheet px. Weak: a long slight curve is taken for straight.
 */
export function findStraight({ levels: [picture] }: Pyramid, near: Vec, reach = 8): readonly FoundEdge[] | undefined {
  if (!picture) return undefined;
  const first = findEdgeNear(picture, near, reach);
  if (!first) return undefined;
  const diagonal = Math.hypot(picture.width, picture.height);
  const [back, ahead] = [1, -1].map((way) => follow(picture, first, (way * Math.PI) / 2, STEP * diagonal)) as [
    FoundEdge[],
    FoundEdge[],
  ];
  const edges = [...back.reverse(), first, ...ahead];
  const length = distance(edges[0]!.at, edges.at(-1)!.at);
  if (edges.length < 2 * PLACES || length < LEAST_LENGTH * diagonal) return undefined;
  const kept = smoothest(edges, length);
  if (!kept) return undefined;
  return middlesOf(kept, PLACES);
}

/** Edges from one on to one side, until it ends. */
function follow(picture: ColourPicture, first: FoundEdge, side: number, step: number): FoundEdge[] {
  const found: FoundEdge[] = [first];
  let missed = 0;
  let direction = first.normal + side;
  const change = changeAcross(picture, first);
  for (let at = first.at; missed < MOST_MISSED;) {
    at = [at[0] + step * Math.cos(direction), at[1] + step * Math.sin(direction)];
    if (!(at[0] > 2 && at[1] > 2 && at[0] < picture.width - 2 && at[1] < picture.height - 2)) break;
    const edge = findEdgeAcross(picture, at, direction - side, {
      reach: ASTRAY,
      beside: 2,
      lines: first.kind === 'line',
    });
    if (!edge || edge.kind !== first.kind || !isAlike(changeAcross(picture, edge), change)) {
      missed++;
      continue;
    }
    missed = 0;
    found.push(edge);
    at = edge.at;
    const from = found[Math.max(0, found.length - 1 - REMEMBERED)]!.at;
    if (found.length > 3) direction = Math.atan2(at[1] - from[1], at[0] - from[0]);
  }
  return found.slice(1);
}

/** How far beside an edge its two grounds are looked at, px, and how alike their difference stays along it: where that turns or fades the thing has ended, and something else goes on. */
const BESIDE = [2.5, 4, 5.5];
const TURNED = 0.75;
const FADED = 0.45;

/** The change of colour across an edge, from one ground to the other, which are looked at so far beside it: px of the picture. */
export function changeAcross(
  picture: ColourPicture,
  { at, normal }: Pick<FoundEdge, 'at' | 'normal'>,
  beside = BESIDE,
): Colour {
  const ground = (side: 1 | -1) =>
    beside.map((away) =>
      colourAt(picture, [at[0] + side * away * Math.cos(normal), at[1] + side * away * Math.sin(normal)]),
    );
  const mean = (colours: readonly Colour[], c: number) =>
    colours.reduce((sum, colour) => sum + colour[c]!, 0) / colours.length;
  const [one, other] = [ground(1), ground(-1)];
  return [0, 1, 2].map((c) => mean(one, c) - mean(other, c)) as unknown as Colour;
}

/** Whether colour changes across one place as it does across another: the same way, and not by far less or more. */
function isAlike(a: Colour, b: Colour): boolean {
  const [p, q] = [Math.hypot(...a), Math.hypot(...b)];
  const dot = a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  return dot > TURNED * p * q && Math.min(p, q) > FADED * Math.max(p, q);
}

/** The edges that lie on the slight bend which fits most of them; undefined where they are rough, or bend too much. */
function smoothest(edges: readonly FoundEdge[], length: number): readonly FoundEdge[] | undefined {
  const [a, b] = [edges[0]!.at, edges.at(-1)!.at];
  const along: Vec = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const places = edges.map(({ at }) => {
    const [x, y] = [at[0] - a[0], at[1] - a[1]];
    return { t: (2 * (x * along[0] + y * along[1])) / length - 1, off: y * along[0] - x * along[1] };
  });
  let kept = edges.map(() => true);
  let [bend, away]: [number, readonly number[]] = [0, []];
  for (let round = 0; round < 5; round++) {
    const [c0, c1, c2] = parabolaThrough(places.filter((_, i) => kept[i]));
    bend = c2;
    away = places.map(({ t, off }) => Math.abs(off - c0 - c1 * t - c2 * t * t));
    const limit = Math.max(0.5, 2.5 * 1.4826 * median(away));
    kept = away.map((distance) => distance <= limit);
  }
  const used = edges.filter((_, i) => kept[i]);
  const rough = Math.sqrt(away.filter((_, i) => kept[i]).reduce((sum, value) => sum + value * value, 0) / used.length);
  return used.length >= 2 * PLACES && rough < MOST_ROUGH && Math.abs(bend) < MOST_BOWED * length ? used : undefined;
}

/** c0 + c1·t + c2·t² closest to places, by the normal equations (Cramer's rule). */
function parabolaThrough(
  places: readonly { readonly t: number; readonly off: number }[],
): readonly [number, number, number] {
  const sum = (of: (place: { readonly t: number; readonly off: number }) => number) =>
    places.reduce((total, place) => total + of(place), 0);
  const [s0, s1, s2, s3, s4] = [0, 1, 2, 3, 4].map((power) => sum(({ t }) => t ** power)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const [y0, y1, y2] = [0, 1, 2].map((power) => sum(({ t, off }) => off * t ** power)) as [number, number, number];
  const det = (m: readonly number[]) =>
    m[0]! * (m[4]! * m[8]! - m[5]! * m[7]!) -
    m[1]! * (m[3]! * m[8]! - m[5]! * m[6]!) +
    m[2]! * (m[3]! * m[7]! - m[4]! * m[6]!);
  const whole = det([s0, s1, s2, s1, s2, s3, s2, s3, s4]);
  return [
    det([y0, s1, s2, y1, s2, s3, y2, s3, s4]) / whole,
    det([s0, y0, s2, s1, y1, s3, s2, y2, s4]) / whole,
    det([s0, s1, y0, s1, s2, y1, s2, s3, y2]) / whole,
  ];
}
