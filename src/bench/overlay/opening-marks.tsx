import { listOpenings, spansIn } from '@/core/derive';
import { add, findDirection, perpendicular, scale, subtract, type Line, type Vec } from '@/core/geometry';
import { endsAcross, middleOf, type OpeningSpan } from '@/core/outline';
import { formatLength } from '@/core/units';
import { layingOf } from '../laying';
import { toScreen } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { DimensionLine } from './dimension';
import { labelAround, labelAt, type Labelling } from './labels';
import { pathData } from './path-data';
import { placesAlong } from './place-labels';
import { benchTransform } from './selection';

/** Around an opening. */
function rimOf(span: OpeningSpan): readonly Line[] {
  const [first, last] = endsAcross(span);
  return [
    first,
    { kind: 'line', a: first.b, b: last.b },
    { kind: 'line', a: last.b, b: last.a },
    { kind: 'line', a: last.a, b: first.a },
  ];
}

/** From the wall to the middle of a mark. CSS px */
const ASIDE = 20;

/** Where a mark stands on the screen: beside its wall, where no leaf opens. */
function besideWall(span: OpeningSpan, toScreenPlace: (at: Vec) => Vec): Vec {
  const { along, left, right, opening } = span;
  const isLeft = opening.fill?.hung?.to !== 'left';
  const aside = scale(perpendicular(along), isLeft ? 1 : -1);
  const face = add(middleOf(span), scale(aside, isLeft ? left : right));
  const [at, farther] = [toScreenPlace(face), toScreenPlace(add(face, aside))];
  const away = findDirection(subtract(farther, at));
  return away ? add(at, scale(away, ASIDE)) : at;
}

interface Opened {
  readonly span: OpeningSpan;
  readonly mark: string;
}

function listOpened({ job, derived, fitted }: DrawnProps): readonly Opened[] {
  const rows = listOpenings(job).filter(({ wall }) => wall.plane === fitted.view.plane);
  const spans = new Map(
    [...new Set(rows.map(({ wall }) => wall.id))].flatMap((wall) =>
      spansIn(wall, job, derived.shapes).map((span) => [span.opening.id, span] as const),
    ),
  );
  return rows.flatMap(({ opening, mark }) => (spans.has(opening.id) ? [{ span: spans.get(opening.id)!, mark }] : []));
}

const onScreen =
  ({ fitted, viewport }: DrawnProps) =>
  (at: Vec) =>
    toScreen(viewport, fitted.fit.toSheet(at));

/** The opening that is chosen, tinted, and how far it is from its corner. */
export function OpeningMarks({ chosen, ...drawn }: DrawnProps & { readonly chosen: string | undefined }) {
  const { fitted, viewport, palette } = drawn;
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const place = onScreen(drawn);
  return (
    <g data-testid="openings">
      {listOpened(drawn)
        .filter(({ span }) => span.opening.id === chosen)
        .map(({ span }) => (
          <g key={span.opening.id}>
            {span.opening.distance > 0 ? (
              <DimensionLine look="measure" palette={palette} from={place(span.near)} to={place(span.corner)} />
            ) : null}
            <path
              transform={benchTransform(viewport)}
              d={pathData(rimOf(span), true, fromPlane)}
              fill={palette.hedge}
              fillOpacity={0.35}
              stroke={palette.hedge}
              strokeWidth={2}
              vectorEffect="non-scaling-stroke"
            />
          </g>
        ))}
    </g>
  );
}

/** The marks of the openings beside their walls, and of the chosen one the distance from its corner. */
export function openingLabels(drawn: DrawnProps, chosen: string | undefined): Labelling {
  const { palette, job, viewport } = drawn;
  const place = onScreen(drawn);
  const opened = listOpened(drawn);
  const held = opened
    .filter(({ span }) => span.opening.id === chosen && span.opening.distance > 0)
    .map(({ span }) => ({
      of: 'from-corner',
      from: place(span.near),
      to: place(span.corner),
      text: formatLength(span.opening.distance, job.units),
    }));
  return {
    labels: [
      ...held.map(({ of, from, to, text }) =>
        labelAt((size) => placesAlong(from, to, size, [viewport.width, viewport.height]), {
          key: of,
          text,
          color: palette.ink,
        }),
      ),
      ...opened.map(({ span, mark }) =>
        labelAround(besideWall(span, place), {
          key: span.opening.id,
          text: mark,
          color: span.opening.id === chosen ? palette.hedge : palette.ink,
        }),
      ),
    ],
    lines: held,
  };
}
