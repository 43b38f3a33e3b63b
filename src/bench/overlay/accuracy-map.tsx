import { contours } from 'd3-contour';
import { errorEllipse, isInFront, positionSigma, scaleInMiddle } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import { formatPlusMinus } from '@/core/units';
import { toScreen, type Viewport } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { labelAround, type Labelling } from './labels';

/** Places the map is sampled at, across and down: it is smooth, and more would not show. */
const ACROSS = 28;
const DOWN = 21;
/** Contours at these plus-minus, mm on screen (two sigma). */
const LEVELS = [0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500];
/** Only the map is shown: what one's own pointing adds is left out. */
const POINTING = 1e-6;
/** Ellipses are drawn so much larger than life that the largest is this many pixels on the screen. */
const LARGEST_ELLIPSE = 26;

/** The note on the ellipses stands so far in from the picture's edge that all of it is seen. */
const NOTE = 90;

/** How right every place is, against the middle of the evidence: calm shading with figures on its contours, and error ellipses. */
export function AccuracyMap({ fitted, viewport, palette }: DrawnProps) {
  const { bands, ellipses } = sampledOnce(fitted);
  const at = screenOf(fitted, viewport);
  const factor = enlargementOf(ellipses, fitted, viewport);
  return (
    <g data-testid="accuracy-map">
      {bands.map(({ level, rings }) => (
        <g key={level}>
          <path
            d={rings.map((ring) => `${pathOf(ring, at)}Z`).join('')}
            fill={palette.plum}
            fillOpacity={0.05}
            fillRule="evenodd"
          />
          <path
            d={rings
              .flatMap(withoutRim)
              .map((line) => pathOf(line, at))
              .join('')}
            fill="none"
            stroke={palette.halo}
            strokeOpacity={0.6}
            strokeWidth={3}
          />
          <path
            d={rings
              .flatMap(withoutRim)
              .map((line) => pathOf(line, at))
              .join('')}
            fill="none"
            stroke={palette.plum}
            strokeWidth={1.2}
          />
        </g>
      ))}
      {ellipses.map((ellipse, i) => (
        <path
          key={i}
          d={`${pathOf(ringOf(ellipse, factor), (plane) => toScreen(viewport, fitted.fit.toSheet(plane as unknown as Vec)))}Z`}
          fill="none"
          stroke={palette.ink}
          strokeWidth={1.2}
          strokeOpacity={0.8}
        />
      ))}
    </g>
  );
}

/** From cells of the map to the screen. */
const screenOf =
  ({ sheet }: FittedView, viewport: Viewport) =>
  ([x, y]: readonly number[]): Vec =>
    toScreen(viewport, [(x! * sheet.width) / ACROSS, (y! * sheet.height) / DOWN]);

function enlargementOf(ellipses: readonly Ellipse[], { fit }: FittedView, { zoom }: Viewport): number {
  const largest = Math.max(...ellipses.map(({ long }) => long));
  return Number((LARGEST_ELLIPSE / (largest * scaleInMiddle(fit) * zoom)).toPrecision(1));
}

/** The figures on the contours, and how much larger than life the ellipses are. */
export function accuracyLabels({ fitted, viewport, palette, job }: DrawnProps): Labelling {
  const { bands, ellipses } = sampledOnce(fitted);
  const at = screenOf(fitted, viewport);
  const onContours = bands.flatMap(({ level, label }) =>
    label
      ? [
          labelAround(at(label), {
            key: `level-${level}`,
            text: formatPlusMinus(level / 2, job.units),
            color: palette.plum,
          }),
        ]
      : [],
  );
  const note =
    ellipses.length > 0
      ? [
          labelAround([at([0, 0])[0] + NOTE, at([0, DOWN - 0.8])[1]], {
            key: 'ellipses',
            text: `ellipses drawn ×${enlargementOf(ellipses, fitted, viewport)}`,
            color: palette.ink,
          }),
        ]
      : [];
  return { labels: [...onContours, ...note] };
}

const pathOf = (line: readonly (readonly number[])[], at: (place: readonly number[]) => Vec) =>
  `M${line
    .map((place) =>
      at(place)
        .map((v) => v.toFixed(1))
        .join(' '),
    )
    .join('L')}`;

/** An error ellipse of two sigma, drawn `factor` times larger than life, on the plane. */
function ringOf({ place, long, short, direction }: Ellipse, factor: number): Vec[] {
  const [c, s] = [Math.cos(direction), Math.sin(direction)];
  return Array.from({ length: 32 }, (_, i): Vec => {
    const [u, v] = [long * factor * Math.cos((i * Math.PI) / 16), short * factor * Math.sin((i * Math.PI) / 16)];
    return [place[0] + c * u - s * v, place[1] + s * u + c * v];
  });
}

/** Middle and direction on the plane, half-axes of two sigma. mm. */
interface Ellipse {
  readonly place: Vec;
  readonly long: number;
  readonly short: number;
  readonly direction: number;
}

/** A contour's ring without the stretches along the picture's rim, where it only closes. */
function withoutRim(ring: readonly (readonly number[])[]): (readonly number[])[][] {
  const isRim = ([x, y]: readonly number[]) => x! <= 0.5 || y! <= 0.5 || x! >= ACROSS - 0.5 || y! >= DOWN - 0.5;
  const lines: (readonly number[])[][] = [[]];
  for (const place of ring) {
    if (isRim(place)) lines.push([]);
    else lines.at(-1)!.push(place);
  }
  return lines.filter((line) => line.length > 1);
}

interface Band {
  readonly level: number;
  readonly rings: readonly (readonly (readonly number[])[])[];
  readonly label: readonly number[] | undefined;
}

interface Sampled {
  readonly bands: readonly Band[];
  readonly ellipses: readonly Ellipse[];
}

const known = new WeakMap<FittedView, Sampled>();

/** Worked out once for a fit. */
function sampledOnce(fitted: FittedView): Sampled {
  const map = known.get(fitted) ?? sampled(fitted);
  known.set(fitted, map);
  return map;
}

function sampled({ fit, sheet }: FittedView): Sampled {
  const sigmaAt = (x: number, y: number) => {
    const at: Vec = [(x * sheet.width) / ACROSS, (y * sheet.height) / DOWN];
    return isInFront(fit.map, at) ? 2 * positionSigma(fit, { at, sigma: POINTING }) : Infinity;
  };
  const values = Array.from({ length: ACROSS * DOWN }, (_, i) =>
    sigmaAt((i % ACROSS) + 0.5, Math.floor(i / ACROSS) + 0.5),
  );
  const finite = values.map((value) => Math.min(value, 1e4));
  const [least, most] = [Math.min(...finite), Math.max(...finite)];
  const levels = LEVELS.filter((level) => level > least && level < most);
  const bands = contours()
    .size([ACROSS, DOWN])
    .thresholds(levels)(finite)
    .map(({ value, coordinates }, index): Band => {
      const rings = coordinates.flat();
      return { level: value, rings, label: labelPlace(rings, index) };
    });
  const ellipses = Array.from({ length: 12 }, (_, i) => {
    const place: Vec = [(((i % 4) + 0.5) * sheet.width) / 4, ((Math.floor(i / 4) + 0.5) * sheet.height) / 3];
    const { axes, direction } = errorEllipse(fit, { at: place, sigma: POINTING });
    return { place: fit.toPlane(place), long: 2 * axes[0], short: 2 * axes[1], direction };
  });
  return { bands, ellipses: ellipses.filter(({ long }) => Number.isFinite(long)) };
}

/** Contours smaller than this have no room for a figure, in cells. */
const ROOM = 4;

/** The place on a contour inside the picture that is furthest some way; each contour another way, so that the figures stand clear of each other. */
function labelPlace(rings: Band['rings'], index: number): readonly number[] | undefined {
  const inside = rings.flat().filter(([x, y]) => x! > 2 && x! < ACROSS - 2 && y! > 1 && y! < DOWN - 1);
  const way = index * 2.1;
  const along = (place: readonly number[]) => place[0]! * Math.cos(way) + place[1]! * Math.sin(way);
  const [least, most] = [Math.min(...inside.map(along)), Math.max(...inside.map(along))];
  return most - least < ROOM ? undefined : inside.find((place) => along(place) === most);
}
