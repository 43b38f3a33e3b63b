/** Closed outlines of things, mm, x right, y up, anticlockwise. The generator has its own geometry so that it can judge the app's. */
export type Point = readonly [number, number];

export type Stroke =
  | { readonly kind: 'line'; readonly to: Point }
  | { readonly kind: 'arc'; readonly through: Point; readonly to: Point }
  | { readonly kind: 'curve'; readonly out: Point; readonly in: Point; readonly to: Point };

export interface Profile {
  readonly start: Point;
  readonly strokes: readonly Stroke[];
}

export function circleProfile([x, y]: Point, radius: number): Profile {
  return {
    start: [x + radius, y],
    strokes: [
      { kind: 'arc', through: [x, y + radius], to: [x - radius, y] },
      { kind: 'arc', through: [x, y - radius], to: [x + radius, y] },
    ],
  };
}

/** A rectangle with rounded corners, lower left corner at the origin. */
export function roundedRectangle(width: number, height: number, radius: number): Profile {
  const k = radius * (1 - Math.SQRT1_2);
  const [w, h, r] = [width, height, radius];
  return {
    start: [r, 0],
    strokes: [
      { kind: 'line', to: [w - r, 0] },
      { kind: 'arc', through: [w - k, k], to: [w, r] },
      { kind: 'line', to: [w, h - r] },
      { kind: 'arc', through: [w - k, h - k], to: [w - r, h] },
      { kind: 'line', to: [r, h] },
      { kind: 'arc', through: [k, h - k], to: [0, h - r] },
      { kind: 'line', to: [0, r] },
      { kind: 'arc', through: [k, k], to: [r, 0] },
    ],
  };
}

export function circleThrough(a: Point, b: Point, c: Point): { centre: Point; radius: number } {
  const d = 2 * (a[0] * (b[1] - c[1]) + b[0] * (c[1] - a[1]) + c[0] * (a[1] - b[1]));
  const [aa, bb, cc] = [a, b, c].map((p) => p[0] ** 2 + p[1] ** 2) as [number, number, number];
  const centre: Point = [
    (aa * (b[1] - c[1]) + bb * (c[1] - a[1]) + cc * (a[1] - b[1])) / d,
    (aa * (c[0] - b[0]) + bb * (a[0] - c[0]) + cc * (b[0] - a[0])) / d,
  ];
  return { centre, radius: Math.hypot(a[0] - centre[0], a[1] - centre[1]) };
}

/** The profile as a fine polygon: chords at most `step` mm long. */
export function toPolygon(profile: Profile, step = 0.1): Point[] {
  const points: Point[] = [profile.start];
  let at = profile.start;
  for (const stroke of profile.strokes) {
    points.push(...strokePoints(at, stroke, step));
    at = stroke.to;
  }
  return points;
}

function strokePoints(from: Point, stroke: Stroke, step: number): Point[] {
  if (stroke.kind === 'line') return [stroke.to];
  if (stroke.kind === 'arc') return arcPoints(from, stroke.through, stroke.to, step);
  const count = Math.ceil((Math.hypot(stroke.to[0] - from[0], stroke.to[1] - from[1]) * 1.6) / step);
  return Array.from({ length: count }, (_, i) => bezier(from, stroke.out, stroke.in, stroke.to, (i + 1) / count));
}

function bezier(a: Point, b: Point, c: Point, d: Point, t: number): Point {
  const s = 1 - t;
  const at = (k: 0 | 1) => s ** 3 * a[k] + 3 * s * s * t * b[k] + 3 * s * t * t * c[k] + t ** 3 * d[k];
  return [at(0), at(1)];
}

function arcPoints(from: Point, through: Point, to: Point, step: number): Point[] {
  const { centre, radius } = circleThrough(from, through, to);
  const angle = (p: Point) => Math.atan2(p[1] - centre[1], p[0] - centre[0]);
  const turn = 2 * Math.PI;
  const start = angle(from);
  const ahead = (p: Point) => (((angle(p) - start) % turn) + turn) % turn;
  const counter = ahead(through) < ahead(to);
  const sweep = counter ? ahead(to) : ahead(to) - turn;
  const count = Math.max(2, Math.ceil((Math.abs(sweep) * radius) / step));
  return Array.from({ length: count }, (_, i): Point => {
    const a = start + (sweep * (i + 1)) / count;
    return [centre[0] + radius * Math.cos(a), centre[1] + radius * Math.sin(a)];
  });
}
