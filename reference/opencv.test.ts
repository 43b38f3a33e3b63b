/** The picture library of the registry (@techstark/opencv-js) as a second opinion on maps and lenses. */
import { readFileSync } from 'node:fs';
import jpeg from 'jpeg-js';
import {
  chooseModel,
  fitView,
  OWN_PLANE,
  straightened,
  toPlane,
  toSheet,
  type Observation,
  type Points,
} from '../src/core/calibrate';
import { trueMap } from '../src/core/calibrate/simulation';
import { distance, findEllipse, onEllipse, type Ellipse, type Vec } from '../src/core/geometry';
import { toSpace, type Pose } from '../src/core/space';
import { colourPictureFrom, createPyramid, findRim, straightenRows } from '../src/core/raster';

/* eslint-disable @typescript-eslint/no-explicit-any -- the library has no types worth the name */
let cv: any;
beforeAll(async () => {
  const loaded = jest.requireActual<any>('@techstark/opencv-js');
  cv = loaded instanceof Promise ? await loaded : loaded;
  if (!cv.Mat) await new Promise<void>((resolve) => (cv.onRuntimeInitialized = resolve));
}, 120_000);

const picture = { width: 4032, height: 3024, kind: 'photo' as const, focal35mm: 26 };
const PLANE: readonly Vec[] = [
  [-120, -80],
  [130, -85],
  [125, 90],
  [-115, 88],
  [0, 10],
  [60, -40],
  [-70, 30],
  [20, 70],
];
const truth = trueMap(picture, 'projective', 'none', [5.4, 0.03, 0.02, 0.3, -0.1]);
const GRID = Array.from({ length: 35 }, (_, i): Vec => [((i % 7) + 0.5) * 576, (Math.floor(i / 7) + 0.5) * 604.8]);

/** Their homography of points, as a map of sheet places. Pixel centres lie at whole numbers there. */
function theirs(sheet: readonly Vec[], plane: readonly Vec[]): (at: Vec) => Vec {
  const matrix = (points: readonly Vec[]) =>
    cv.matFromArray(
      points.length,
      1,
      cv.CV_64FC2,
      points.flatMap(([x, y]) => [x, y]),
    );
  const h = cv.findHomography(matrix(sheet.map(([x, y]) => [x - 0.5, y - 0.5])), matrix(plane)).data64F as Float64Array;
  return ([px, py]) => {
    const [x, y] = [px - 0.5, py - 0.5];
    const w = h[6]! * x + h[7]! * y + h[8]!;
    return [(h[0]! * x + h[1]! * y + h[2]!) / w, (h[3]! * x + h[4]! * y + h[5]!) / w];
  };
}

/** What our fit makes of places whose coordinates are known. */
function fitOf(sheet: readonly Vec[], plane: readonly Vec[], model: 'projective' | 'camera') {
  const points: Points = Object.fromEntries(sheet.map((at, i) => [`p${i}`, { at, sigma: 1 }]));
  const evidence = plane.map((mm, i): Observation => ({ id: `k${i}`, kind: 'known-point', point: `p${i}`, mm }));
  const fit = fitView({
    picture,
    datum: { origin: [0, 0], direction: 0 },
    points,
    evidence,
    lift: { mm: 0, sigma: 1e-9 },
    model,
    lens: 'none',
  });
  if (!fit.ok) throw new Error(fit.code);
  return fit.value;
}

const ours = (sheet: readonly Vec[], plane: readonly Vec[]): ((at: Vec) => Vec) =>
  fitOf(sheet, plane, 'projective').toPlane;

const apart = (a: (at: Vec) => Vec, b: (at: Vec) => Vec) => Math.max(...GRID.map((at) => distance(a(at), b(at))));

it('finds the same map from exact points, within 1e-4 mm over the picture', () => {
  const sheet = PLANE.map((place) => toSheet(truth, place));
  expect(apart(ours(sheet, PLANE), theirs(sheet, PLANE))).toBeLessThan(1e-4);
  expect(apart(ours(sheet, PLANE), (at) => toPlane(truth, at))).toBeLessThan(1e-6);
});

it('finds nearly the same map from points that somebody pointed at: the difference is far below what the pointing does', () => {
  const noise = [0.7, -1.1, 0.3, 0.9, -0.4, -0.8, 1.2, -0.2, 0.5, -0.6, 0.1, 1, -1.3, 0.4, 0.2, -0.9];
  const sheet = PLANE.map((place, i): Vec => {
    const [x, y] = toSheet(truth, place);
    return [x + noise[2 * i]!, y + noise[2 * i + 1]!];
  });
  const pointing = apart(ours(sheet, PLANE), (at) => toPlane(truth, at));
  // Theirs weighs plane errors, ours the clicks: they are different estimates of the same noise.
  expect(apart(ours(sheet, PLANE), theirs(sheet, PLANE))).toBeLessThan(0.5 * pointing);
});

const HALF = Math.hypot(4032, 3024) / 2;
const focal = (26 / (Math.hypot(36, 24) / 2)) * HALF;
const CAMERA = [Math.log(330), 0.45, -0.3, Math.log(focal / HALF)];
const theirCamera = () => cv.matFromArray(3, 3, cv.CV_64F, [focal, 0, 2015.5, 0, focal, 1511.5, 0, 0, 1]);
const WITHOUT_LENS = [0, 0, 0, 0];

/** Their pose of the camera by which the places of the plane are seen there. */
function theirPose(sheet: readonly Vec[]): { readonly rotation: any; readonly translation: any } {
  const [rotation, translation] = [new cv.Mat(), new cv.Mat()];
  cv.solvePnP(
    cv.matFromArray(
      8,
      1,
      cv.CV_64FC3,
      PLANE.flatMap(([x, y]) => [x, y, 0]),
    ),
    cv.matFromArray(
      8,
      1,
      cv.CV_64FC2,
      sheet.flatMap(([x, y]) => [x - 0.5, y - 0.5]),
    ),
    theirCamera(),
    cv.matFromArray(1, 4, cv.CV_64F, WITHOUT_LENS),
    rotation,
    translation,
  );
  return { rotation, translation };
}

it('sees the camera where their pose puts it', () => {
  const seen = trueMap(picture, 'camera', 'none', CAMERA);
  const sheet = PLANE.map((place) => toSheet(seen, place));
  const fit = fitOf(sheet, PLANE, 'camera');
  const { rotation, translation } = theirPose(sheet);
  const turned = new cv.Mat();
  cv.Rodrigues(rotation, turned);
  const [r, t] = [turned.data64F as Float64Array, translation.data64F as Float64Array];
  const theirHeight = Math.abs(r[2]! * t[0]! + r[5]! * t[1]! + r[8]! * t[2]!);
  const numbers = (part: string) => fit.parts.find((other) => other.part === part)!.values;
  const [across = 0, up = 0] = numbers('tilt');
  expect(Math.exp(numbers('scale')[0]!)).toBeCloseTo(theirHeight, 2);
  expect(Math.cos(across) * Math.cos(up)).toBeCloseTo(Math.abs(r[8]!), 5);
});

const FACES: Readonly<Record<string, Pose>> = {
  'a level 25 mm up': { origin: [0, 0, 25], x: [1, 0, 0], y: [0, 1, 0] },
  'a wall that stands on it': { origin: [30, 60, 0], x: [0.8, 0.6, 0], y: [0, 0, 1] },
  'a roof of 3 in 4': { origin: [-40, 10, 5], x: [0, 1, 0], y: [-0.8, 0, 0.6] },
};

it.each(Object.keys(FACES))('sees the places of %s where they project them', (name) => {
  const pose = FACES[name]!;
  const model = chooseModel(picture, 'camera', 'none', { turns: false, shifts: false });
  const own = model.mapAt(CAMERA, OWN_PLANE);
  const { rotation, translation } = theirPose(PLANE.map((place) => toSheet(own, place)));
  const places: readonly Vec[] = PLANE.map(([x, y]) => [x / 4, y / 4]);
  const images = new cv.Mat();
  cv.projectPoints(
    cv.matFromArray(
      places.length,
      1,
      cv.CV_64FC3,
      places.flatMap((place) => [...toSpace(pose, place)]),
    ),
    rotation,
    translation,
    theirCamera(),
    cv.matFromArray(1, 4, cv.CV_64F, WITHOUT_LENS),
    images,
    new cv.Mat(),
  );
  const map = model.mapAt(CAMERA, pose);
  places.forEach((place, i) => {
    const [x, y] = [0, 1].map((axis) => (images.data64F[2 * i + axis] as number) + 0.5) as [number, number];
    expect(distance(toPlane(map, [x, y]), place)).toBeLessThan(1e-3);
  });
});

it('bends a lens the same way: their straight places, drawn by their lens, are straightened by ours', () => {
  // Their k1 maps straight to bowed in units of the focal length; over the picture ours is fitted to the same curve by two terms.
  const focal = 3000;
  const camera = cv.matFromArray(3, 3, cv.CV_64F, [focal, 0, 2015.5, 0, focal, 1511.5, 0, 0, 1]);
  const radii = Array.from({ length: 12 }, (_, i) => (i + 1) * 150);
  const straight = radii.map((r): Vec => [r / focal, 0]);
  const objects = cv.matFromArray(
    radii.length,
    1,
    cv.CV_64FC3,
    straight.flatMap(([x, y]) => [x, y, 1]),
  );
  const zero = () => cv.matFromArray(3, 1, cv.CV_64F, [0, 0, 0]);
  const images = new cv.Mat();
  const jacobian = new cv.Mat();
  cv.projectPoints(
    objects,
    zero(),
    zero(),
    camera,
    cv.matFromArray(1, 4, cv.CV_64F, [-0.1, 0, 0, 0]),
    images,
    jacobian,
  );
  const bowedX = Array.from(radii, (_, i) => (images.data64F[2 * i] as number) - 2015.5);
  // Two terms by least squares on r (k1 r² + k2 r⁴) = straight − bowed, in half diagonals.
  const rows = bowedX.map((x, i) => ({ u: x / 2520, shift: (radii[i]! - x) / 2520 }));
  const sum = (f: (row: { u: number; shift: number }) => number) => rows.reduce((total, row) => total + f(row), 0);
  const [a, b, c, d, e] = [
    sum(({ u }) => u ** 6),
    sum(({ u }) => u ** 8),
    sum(({ u }) => u ** 10),
    sum(({ u, shift }) => u ** 3 * shift),
    sum(({ u, shift }) => u ** 5 * shift),
  ];
  const lens = {
    k1: (d * c - e * b) / (a * c - b * b),
    k2: (a * e - b * d) / (a * c - b * b),
    centre: [0, 0] as const,
  };
  rows.forEach(({ u }, i) => expect(Math.abs(straightened(lens, [u, 0])[0] * 2520 - radii[i]!)).toBeLessThan(0.2));
});

it('finds the same ellipse through points with noise', () => {
  const ellipse: Ellipse = { centre: [410, 300], axes: [150, 96], direction: 0.7 };
  const points = Array.from({ length: 40 }, (_, i): Vec => {
    const { point, outward } = onEllipse(ellipse, (2 * Math.PI * i) / 40);
    const away = 0.4 * Math.sin(7 * i) + 0.3 * Math.cos(13 * i);
    return [point[0] + away * Math.cos(outward), point[1] + away * Math.sin(outward)];
  });
  const found = findEllipse(points)!;
  // Fitzgibbon's direct fit, as ours is.
  const peer = cv.fitEllipseDirect(cv.matFromArray(40, 1, cv.CV_32FC2, points.flat())) as {
    center: { x: number; y: number };
    size: { width: number; height: number };
  };
  expect(distance(found.centre, [peer.center.x, peer.center.y])).toBeLessThan(0.01);
  const [short, long] = [peer.size.width / 2, peer.size.height / 2].sort((a, b) => a - b) as [number, number];
  expect(found.axes[0]).toBeCloseTo(long, 1);
  expect(found.axes[1]).toBeCloseTo(short, 1);
});

it('finds a circle drawn on a scan midway between the ellipses that it fits to the two sides of its line', () => {
  const { width, height, data } = jpeg.decode(readFileSync('public/demo/nest-box.jpg'), { useTArray: true });
  const [left, top, size] = [876, 736, 320];
  const middle: Vec = [left + size / 2, top + size / 2];
  const grays = Array.from(
    { length: size * size },
    (_, i) => data[4 * ((top + Math.floor(i / size)) * width + left + (i % size))]!,
  );
  const [ink, contours, order] = [new cv.Mat(), new cv.MatVector(), new cv.Mat()];
  cv.threshold(cv.matFromArray(size, size, cv.CV_8UC1, grays), ink, 0, 255, cv.THRESH_BINARY_INV | cv.THRESH_OTSU);
  cv.findContours(ink, contours, order, cv.RETR_LIST, cv.CHAIN_APPROX_NONE);
  // Other lines cross it: of all rims of ink those that run along the circle's line, within it and without.
  const rims = Array.from({ length: contours.size() as number }, (_, i) => [...(contours.get(i).data32S as Int32Array)])
    .flatMap((flat) => flat.flatMap((x, i): Vec[] => (i % 2 === 0 ? [[x, flat[i + 1]!]] : [])))
    .filter((at) => Math.abs(distance(at, [160, 160]) - 95.3) < 6);
  const sides = [-1, 1].map((side) => {
    const places = rims.filter((at) => side * (distance(at, [160, 160]) - 95.3) > 0);
    return cv.fitEllipse(cv.matFromArray(places.length, 1, cv.CV_32SC2, places.flat())) as {
      center: { x: number; y: number };
      size: { width: number; height: number };
    };
  });
  const mean = (of: (side: (typeof sides)[number]) => number) => (of(sides[0]!) + of(sides[1]!)) / 2;
  const { ellipse } = findRim(createPyramid(colourPictureFrom(width, height, data)), middle)!;
  expect(
    distance(ellipse.centre, [left + 0.5 + mean(({ center }) => center.x), top + 0.5 + mean(({ center }) => center.y)]),
  ).toBeLessThan(0.15);
  expect(Math.abs(ellipse.axes[0] - mean(({ size: { width: w, height: h } }) => Math.max(w, h) / 2))).toBeLessThan(0.2);
  expect(Math.abs(ellipse.axes[1] - mean(({ size: { width: w, height: h } }) => Math.min(w, h) / 2))).toBeLessThan(0.2);
});

it('squares a picture up as its warp does', () => {
  const [width, height] = [240, 180];
  const data = Uint8ClampedArray.from({ length: 4 * width * height }, (_, i) =>
    i % 4 === 3 ? 255 : 128 + 100 * Math.sin(((i >> 2) % width) / 7 + (i % 4)) * Math.cos((i >> 2) / width / 9),
  );
  // From the result to the source, for their centres at whole numbers.
  const h = [1.05, 0.08, 6, -0.04, 0.96, 9, 0.0006, -0.0004, 1];
  const toSource = ([px, py]: Vec): Vec => {
    const [x, y] = [px - 0.5, py - 0.5];
    const w = h[6]! * x + h[7]! * y + h[8]!;
    return [(h[0]! * x + h[1]! * y + h[2]!) / w + 0.5, (h[3]! * x + h[4]! * y + h[5]!) / w + 0.5];
  };
  const mine = straightenRows({ width, height, data }, width, 0, height, toSource);
  const [source, result] = [cv.matFromArray(height, width, cv.CV_8UC4, [...data]), new cv.Mat()];
  cv.warpPerspective(
    source,
    result,
    cv.matFromArray(3, 3, cv.CV_64F, h),
    new cv.Size(width, height),
    cv.INTER_LINEAR | cv.WARP_INVERSE_MAP,
  );
  const off: number[] = [];
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const [u, v] = toSource([x + 0.5, y + 0.5]);
      if (u > 2 && v > 2 && u < width - 2 && v < height - 2)
        off.push(Math.abs(mine[4 * (y * width + x)]! - result.data[4 * (y * width + x)]));
    }
  expect(off.length).toBeGreaterThan(20_000);
  // Theirs goes by 32nds of a pixel, and a pixel changes by up to 15 levels here.
  expect(Math.max(...off)).toBeLessThanOrEqual(2);
});
