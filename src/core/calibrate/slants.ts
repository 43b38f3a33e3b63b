import { add, distance, findEllipse, scale, subtract, type Ellipse, type Vec } from '../geometry';
import { cornersOfSides, type Observation, type ObservationOf, type Points } from './evidence';
import { compose, inverse, type Homography } from './homography';
import { focalOf, type PictureGeometry } from './picture';
import { toUnits, unitsOf } from './sheet-map';

/** How a camera may have been held, and how strongly it draws together: radians out of square-on, focal length in half diagonals. */
export interface Slant {
  readonly tilt: Vec;
  readonly focal: number;
}

/** How it may have stood by the largest thing whose shape is known, and what that is. */
export interface Slants {
  readonly slants: readonly Slant[];
  readonly by: 'rectangle' | 'circle';
}

/** Focal lengths that are tried when nobody told one (35 mm equivalents), and those that a picture can show (half diagonals). */
const TRIED = [24, 45, 90];
const SHOWN = [0.4, 12] as const;
/** A tilt beyond this is no start: radians. */
const STEEPEST = 1.2;

/**
 * How the camera stood, in closed form from the largest rectangle or circle among the evidence: of a rectangle its own vanishing line; of a circle, and of a rectangle whose sides are
 * both known, also what its foreshortening says alone, which of a small or distant thing tells more but leaves two ways open (Horn, Robot Vision, 1986, section 13). The focal length is
 * the one that was told, or else the one at which the rectangle's sides are square and in proportion (Zhang, A flexible new technique for camera calibration,
 * 2000, section 2.3) and a few usual ones. Empty without either. Weak: lens and noise are left to the adjustment.
 */
export function listSlants(picture: PictureGeometry, evidence: readonly Observation[], points: Points): Slants {
  const place = placeIn(picture, points);
  const rectangles = evidence
    .filter((piece) => piece.kind === 'rectangle')
    .map((piece) => ({ piece, corners: cornersAt(piece, place) }))
    .filter(({ corners }) => corners.flat().every(Number.isFinite));
  const [rectangle] = rectangles.sort((a, b) => reachOf(b.corners) - reachOf(a.corners));
  const circles = evidence
    .filter((piece) => piece.kind === 'circle')
    .flatMap(({ through }) => findEllipse(through.map(place)) ?? []);
  const [circle] = circles.sort((a, b) => b.axes[0] - a.axes[0]);
  const told = picture.focal35mm === undefined ? undefined : focalOf(picture);
  const usual = told === undefined ? TRIED.map((focal35mm) => focalOf({ ...picture, focal35mm })) : [told];
  const isCircleLarger = circle && (!rectangle || 4 * circle.axes[0] > reachOf(rectangle.corners));
  const standings = isCircleLarger
    ? usual.flatMap((focal) => normalsOfCircle(focal, circle).map((normal) => ({ focal, normal })))
    : rectangle
      ? slantsOfRectangle(rectangle, told, usual)
      : [];
  const slants = standings
    .map(({ focal, normal }) => ({ focal, tilt: tiltOf(normal) }))
    .filter(({ tilt }) => Math.hypot(...tilt) < STEEPEST);
  return { slants, by: isCircleLarger ? 'circle' : 'rectangle' };
}

interface Standing {
  readonly focal: number;
  readonly normal: Vec3;
}

function slantsOfRectangle(
  { piece, corners }: { readonly piece: ObservationOf<'rectangle'>; readonly corners: readonly Vec[] },
  told: number | undefined,
  usual: readonly number[],
): Standing[] {
  const size = sizeSaid(piece);
  const seen = squareTo(corners, size ?? [1, 1]);
  const shown = told === undefined && size ? shownFocal(seen) : undefined;
  return [...(shown ? [shown] : []), ...usual].flatMap((focal) =>
    normalsAt(focal, seen, corners, size).map((normal) => ({ focal, normal })),
  );
}

/** The two ways in which a circle can lie, by how its ellipse is drawn together. */
const normalsOfCircle = (focal: number, { centre, axes: [long, short], direction }: Ellipse): Vec3[] =>
  leaning(focal, centre, short / long, direction + Math.PI / 2);

type Vec3 = readonly [number, number, number];

/** Where a point is seen, in half diagonals from the picture's middle. */
function placeIn(picture: PictureGeometry, points: Points): (name: string) => Vec {
  const frame = unitsOf(picture);
  return (name) => toUnits(frame, points[name]!.at);
}

function cornersAt({ corners, sides }: ObservationOf<'rectangle'>, place: (name: string) => Vec): Vec[] {
  return corners ? corners.map(place) : cornersOfSides(sides!.map((side) => side.map(place)));
}

const reachOf = ([a, b, c, d]: readonly Vec[]) => distance(a!, c!) + distance(b!, d!);

function sizeSaid({ widthMm, heightMm, proportion }: ObservationOf<'rectangle'>): Vec | undefined {
  if (widthMm !== undefined && heightMm !== undefined) return [widthMm, heightMm];
  return proportion === undefined ? undefined : [proportion, 1];
}

/** The map that takes a rectangle of that size to its corners (Heckbert, Fundamentals of Texture Mapping, 1989, section 2.2.3). */
function squareTo([a, b, c, d]: readonly Vec[], [width, height]: Vec): Homography {
  const [d1, d2, rest] = [subtract(b!, c!), subtract(d!, c!), add(subtract(a!, b!), subtract(c!, d!))];
  const area = d1[0] * d2[1] - d2[0] * d1[1];
  const g = (rest[0] * d2[1] - d2[0] * rest[1]) / area;
  const h = (d1[0] * rest[1] - rest[0] * d1[1]) / area;
  const unit: Homography = [
    b![0] - a![0] + g * b![0],
    d![0] - a![0] + h * d![0],
    a![0],
    b![1] - a![1] + g * b![1],
    d![1] - a![1] + h * d![1],
    a![1],
    g,
    h,
    1,
  ];
  return compose(unit, [1 / width, 0, 0, 0, 1 / height, 0, 0, 0, 1]);
}

/** The focal length at which the two directions of a plane are square and equally long, by least squares; undefined when none is. */
function shownFocal(h: Homography): number | undefined {
  const flat = [h[0] * h[1] + h[3] * h[4], h[0] * h[0] + h[3] * h[3] - h[1] * h[1] - h[4] * h[4]] as const;
  const deep = [h[6] * h[7], h[6] * h[6] - h[7] * h[7]] as const;
  const focal = Math.sqrt(-(flat[0] * flat[0] + flat[1] * flat[1]) / (flat[0] * deep[0] + flat[1] * deep[1]));
  return focal > SHOWN[0] && focal < SHOWN[1] ? focal : undefined;
}

/** Directions that are square to the plane, in the camera's axes: by the vanishing line, and by foreshortening. */
function normalsAt(focal: number, seen: Homography, corners: readonly Vec[], size: Vec | undefined): Vec3[] {
  const [, , , , , , g, h, i] = inverse(seen);
  const vanishing: Vec3 = towardsUs([focal * g, focal * h, i]);
  return size ? [vanishing, ...foreshortened(focal, corners, size)] : [vanishing];
}

const towardsUs = ([x, y, z]: Vec3): Vec3 => {
  const size = Math.hypot(x, y, z) * (Math.sign(z) || 1);
  return [x / size, y / size, z / size];
};

/** The two ways in which a small flat thing of known sides can lie, seen from where it is; none when it is drawn out instead. */
function foreshortened(focal: number, [a, b, c, d]: readonly Vec[], [width, height]: Vec): Vec3[] {
  const along = scale(add(subtract(b!, a!), subtract(c!, d!)), 0.5 / width);
  const up = scale(add(subtract(d!, a!), subtract(c!, b!)), 0.5 / height);
  const middle = scale(add(add(a!, b!), add(c!, d!)), 0.25);
  // Longest and shortest a millimetre is drawn, and the way of the shortest: singular values of the two directions.
  const [xx, xy, yy] = [along[0] ** 2 + up[0] ** 2, along[0] * along[1] + up[0] * up[1], along[1] ** 2 + up[1] ** 2];
  const [mean, spread] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)];
  return leaning(
    focal,
    middle,
    Math.sqrt(Math.max(0, mean - spread) / (mean + spread)),
    Math.atan2(2 * xy, xx - yy) / 2 + Math.PI / 2,
  );
}

/** The two ways in which something can lie that is drawn together to a share in a direction, seen from where it is. */
function leaning(focal: number, middle: Vec, share: number, way: number): Vec3[] {
  const tilt = Math.acos(Math.min(1, share));
  return [1, -1].map((sign) =>
    turnedTo(
      [middle[0] / focal, middle[1] / focal, 1],
      [sign * Math.sin(tilt) * Math.cos(way), sign * Math.sin(tilt) * Math.sin(way), Math.cos(tilt)],
    ),
  );
}

/** A direction given about the line of sight to a place, in the camera's own axes (Rodrigues). */
function turnedTo([x, y, z]: Vec3, [u, v, w]: Vec3): Vec3 {
  const size = Math.hypot(x, y, z);
  const [a, b, c] = [x / size, y / size, z / size];
  const k = 1 / (1 + c);
  return towardsUs([
    (1 - k * a * a) * u - k * a * b * v + a * w,
    -k * a * b * u + (1 - k * b * b) * v + b * w,
    -a * u - b * v + c * w,
  ]);
}

/** Corner angles off square by this, radians, or a proportion off by this share, are the most that four sides found in a picture may be off under the camera that fits them best. */
const OFF = 0.07;
/** Focal lengths at which it is asked whether some camera sees a thing so (35 mm equivalents). */
const IMAGINED = [22, 28, 36, 46, 60, 80, 110];
/** What is photographed on purpose is not seen from flatter than this. */
const FLATTEST = 1.13;

/**
 * How badly four places of a sheet can be the corners of a rectangle of that proportion (width over height, either way round; undefined: any), seen by some camera: 0 perfectly, 1 as badly as is
 * let pass. By each focal length that may be, each way in which it can lie, the angles and sides that it would have. Infinity where no camera sees such a thing. Weak: of a small thing nearly any
 * parallelogram is some rectangle, aside.
 */
export function misfitOfRectangle(
  picture: PictureGeometry,
  corners: readonly Vec[],
  proportion: number | undefined,
): number {
  const frame = unitsOf(picture);
  const seen = corners.map((corner) => toUnits(frame, corner));
  const sizes: readonly Vec[] =
    proportion === undefined
      ? [[1, 1]]
      : [
          [proportion, 1],
          [1, proportion],
        ];
  const focals =
    picture.focal35mm === undefined
      ? IMAGINED.map((focal35mm) => focalOf({ ...picture, focal35mm }))
      : [focalOf(picture)];
  return Math.min(
    ...sizes.flatMap((size) =>
      focals.flatMap((focal) =>
        withBetween(normalsAt(focal, squareTo(seen, size), seen, proportion === undefined ? undefined : size)).map(
          (normal) => offSquare(seen, focal, normal, proportion === undefined ? undefined : size) / OFF,
        ),
      ),
    ),
  );
}

/** Some directions, and the ones halfway between the first and each other: the truth mostly lies between what vanishing and what foreshortening say. */
function withBetween([first, ...others]: readonly Vec3[]): Vec3[] {
  const between = others.map((other) => towardsUs([first![0] + other[0], first![1] + other[1], first![2] + other[2]]));
  return [first!, ...others, ...between];
}

/** The largest of what corners are off square (radians) and sides off their proportion (shares), when they lie square to a direction. */
function offSquare(seen: readonly Vec[], focal: number, normal: Vec3, size: Vec | undefined): number {
  if (Math.hypot(...tiltOf(normal)) > FLATTEST) return Infinity;
  const places = seen.map(([u, v]): Vec3 => {
    const depth = (normal[0] * u) / focal + (normal[1] * v) / focal + normal[2];
    return [u / focal / depth, v / focal / depth, 1 / depth];
  });
  const sides = places.map(
    (from, i): Vec3 => [0, 1, 2].map((axis) => places[(i + 1) % 4]![axis]! - from[axis]!) as unknown as Vec3,
  );
  const lengths = sides.map((side) => Math.hypot(...side));
  const turns = sides.map(
    (side, i) =>
      Math.abs(side.reduce((sum, value, axis) => sum + value * sides[(i + 1) % 4]![axis]!, 0)) /
      (lengths[i]! * lengths[(i + 1) % 4]!),
  );
  const apart = [
    Math.log(lengths[0]! / lengths[2]!),
    Math.log(lengths[1]! / lengths[3]!),
    size ? Math.log((lengths[0]! + lengths[2]!) / (lengths[1]! + lengths[3]!)) - Math.log(size[0] / size[1]) : 0,
  ];
  const worst = Math.max(...turns, ...apart.map(Math.abs));
  return Number.isFinite(worst) ? worst : Infinity;
}

/** The model's two angles for a direction square to the plane. */
const tiltOf = ([x, y, z]: Vec3): Vec => [Math.atan2(-x, z), Math.asin(Math.max(-1, Math.min(1, y)))];
