import {
  angleOf,
  distance,
  dot,
  endOf,
  isFullCircle,
  isOverlapping,
  isRound,
  listCrossings,
  mix,
  nearestOn,
  norm,
  outermostOf,
  pieceBounds,
  pointAt,
  startOf,
  subtract,
  findArcParameter,
  type Arc,
  type Bounds,
  type Line,
  type Piece,
  type Vec,
} from '../geometry';

/** What the aim can catch on, by the name that is shown beside it. */
export type SnapKind =
  | 'end'
  | 'crossing'
  | 'middle'
  | 'centre'
  | 'outermost'
  | 'tangent'
  | 'square'
  | 'guide'
  | 'nearest'
  | 'would-cross'
  | 'straight-on'
  | 'grid';

export const SNAP_KINDS: readonly SnapKind[] = [
  'end',
  'crossing',
  'middle',
  'centre',
  'outermost',
  'tangent',
  'square',
  'guide',
  'nearest',
  'would-cross',
  'straight-on',
  'grid',
];

export interface Snap {
  readonly kind: SnapKind;
  readonly point: Vec;
  readonly distance: number;
}

/** Something to snap to: pieces of outlines, or the line of a guide. */
export interface SnapTarget {
  readonly piece: Piece;
  readonly guide: boolean;
}

/** People expect an end before a middle, and anything exact before "somewhere on it". Smaller wins within the reach. */
const RANK: Readonly<Record<SnapKind, number>> = {
  end: 0,
  crossing: 1,
  centre: 2,
  middle: 3,
  outermost: 4,
  tangent: 5,
  square: 6,
  guide: 7,
  'would-cross': 8,
  nearest: 9,
  'straight-on': 10,
  grid: 11,
};

function fixedSnaps({ piece, guide }: SnapTarget): readonly (readonly [SnapKind, Vec])[] {
  if (guide) return [];
  const middle = piece.kind === 'ellipse' ? [] : ([['middle', pointAt(piece, 0.5)]] as const);
  const ends: readonly (readonly [SnapKind, Vec])[] = isRound(piece)
    ? []
    : [['end', startOf(piece)], ['end', endOf(piece)], ...middle];
  const centre: readonly (readonly [SnapKind, Vec])[] = 'centre' in piece ? [['centre', piece.centre]] : [];
  return [...ends, ...centre, ...outermostOf(piece).map((point) => ['outermost', point] as const)];
}

/** Crossings are looked for among this many nearest pieces only, so that a crowded place stays quick. */
const MAX_CROSSED = 12;

/** What else there is to be caught by. */
export interface Around {
  /** Where a line would come from: then there are places where it would be tangent or square to what is there. */
  readonly from?: Vec | undefined;
  /** Pieces from farther off: what is straight among them may pass by the aim beyond its ends. */
  readonly beyond?: readonly SnapTarget[] | undefined;
  /** Steps of a grid from zero. */
  readonly grid?: number | undefined;
}

/**
 * What lies within `reach` of the aim (view plane, same unit), best first: by rank, then by distance. `reach` is the snap
 * radius on screen divided by the zoom.
 */
export function listSnaps(
  aim: Vec,
  targets: readonly SnapTarget[],
  reach: number,
  { from, beyond = [], grid }: Around = {},
): readonly Snap[] {
  const window: Bounds = { min: [aim[0] - reach, aim[1] - reach], max: [aim[0] + reach, aim[1] + reach] };
  const snaps: Snap[] = [];
  const offer = (kind: SnapKind, point: Vec) => {
    const away = distance(point, aim);
    if (away <= reach) snaps.push({ kind, point, distance: away });
  };
  const near: SnapTarget[] = [];
  for (const target of targets) {
    for (const [kind, point] of fixedSnaps(target)) offer(kind, point);
    if (!isOverlapping(pieceBounds(target.piece), window)) continue;
    const nearest = nearestOn(target.piece, aim);
    if (nearest.distance > reach) continue;
    near.push(target);
    offer(target.guide ? 'guide' : 'nearest', nearest.point);
    if (from) for (const [kind, point] of meetingSnaps(target.piece, from)) offer(kind, point);
  }
  const crossed = near.slice(0, MAX_CROSSED);
  crossed.forEach((a, i) =>
    crossed.slice(i + 1).forEach((b) => {
      for (const crossing of listCrossings(a.piece, b.piece))
        if (!isSharedEnd(a.piece, b.piece, crossing.point)) offer('crossing', crossing.point);
    }),
  );
  for (const [kind, point] of snapsBeyond(aim, beyond, crossed, reach)) offer(kind, point);
  if (grid) offer('grid', [Math.round(aim[0] / grid) * grid, Math.round(aim[1] / grid) * grid]);
  return snaps.sort((a, b) => RANK[a.kind] - RANK[b.kind] || a.distance - b.distance);
}

/** Lines are followed beyond their ends among this many only. */
const MAX_FOLLOWED = 8;

/** Where lines carried straight on pass by, and where they would cross each other or what lies there. */
function snapsBeyond(
  aim: Vec,
  targets: readonly SnapTarget[],
  near: readonly SnapTarget[],
  reach: number,
): readonly (readonly [SnapKind, Vec])[] {
  const followed = targets
    .flatMap(({ piece, guide }) => {
      const on = piece.kind === 'line' && !guide ? findBeyond(piece, aim) : undefined;
      return on && distance(on.foot, aim) <= reach ? [{ ...on, away: distance(on.foot, aim) }] : [];
    })
    .sort((a, b) => a.away - b.away)
    .slice(0, MAX_FOLLOWED);
  const crossings = followed.flatMap(({ line }, i) =>
    [...followed.slice(i + 1).map((other) => other.line), ...near.map(({ piece }) => piece)].flatMap((other) =>
      listCrossings(line, other),
    ),
  );
  return [
    ...crossings.map(({ point }) => ['would-cross', point] as const),
    ...followed.map(({ foot }) => ['straight-on', foot] as const),
  ];
}

/** The way from the nearer end of a line to past the aim, and the aim's foot on it; undefined where the foot lies on the line itself. */
function findBeyond({ a, b }: Line, aim: Vec): { readonly line: Line; readonly foot: Vec } | undefined {
  const along = subtract(b, a);
  const length = norm(along);
  const t = length > 0 ? dot(subtract(aim, a), along) / (length * length) : 0.5;
  if (t >= 0 && t <= 1) return undefined;
  const foot = mix(a, b, t);
  const end = t < 0 ? a : b;
  return { foot, line: { kind: 'line', a: end, b: mix(end, foot, 2) } };
}

/** Where a line from a place touches a piece, and where it meets it squarely. */
function meetingSnaps(piece: Piece, from: Vec): readonly (readonly [SnapKind, Vec])[] {
  if (piece.kind !== 'line' && piece.kind !== 'arc') return [];
  const foot = nearestOn(piece, from);
  const isSquare = foot.distance > 0 && (isFullCircle(piece) || (foot.t > 0 && foot.t < 1));
  const touching = piece.kind === 'arc' ? tangentsFrom(piece, from) : [];
  return [
    ...touching.map((point) => ['tangent', point] as const),
    ...(isSquare ? [['square', foot.point] as const] : []),
  ];
}

/** Where lines from a place outside of it touch an arc (Thales). */
function tangentsFrom(arc: Arc, from: Vec): readonly Vec[] {
  const away = distance(arc.centre, from);
  if (!(away > arc.radius)) return [];
  const [towards, half] = [angleOf(subtract(from, arc.centre)), Math.acos(arc.radius / away)];
  return [towards + half, towards - half].flatMap((angle) => {
    const t = findArcParameter(arc, angle);
    return t === undefined ? [] : [pointAt(arc, t)];
  });
}

function isSharedEnd(a: Piece, b: Piece, point: Vec): boolean {
  const touches = (piece: Piece) =>
    !isRound(piece) && (distance(startOf(piece), point) < 1e-6 || distance(endOf(piece), point) < 1e-6);
  return touches(a) && touches(b);
}
