import { listOpenings, spansIn } from '@/core/derive';
import { add, findDirection, perpendicular, scale, subtract, type Line, type Vec } from '@/core/geometry';
import { endsAcross, middleOf, type OpeningSpan } from '@/core/outline';
import { formatLength } from '@/core/units';
import { layingOf } from '../laying';
import { toScreen } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { Dimension, Label } from './dimension';
import { pathData } from './path-data';
import { benchTransform } from './selection';

/** Around an opening. */
function rimOf(span: OpeningSpan): readonly Line[] {
  const [first, last] = endsAcross(span);
  return [first, { kind: 'line', a: first.b, b: last.b }, { kind: 'line', a: last.b, b: last.a }, { kind: 'line', a: last.a, b: first.a }];
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

/** The openings of the view's walls with their marks; the chosen one is tinted, and shows how far it is from its corner. */
export function OpeningMarks({ job, derived, fitted, viewport, palette, chosen }: DrawnProps & { readonly chosen: string | undefined }) {
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const onScreen = (at: Vec) => toScreen(viewport, fitted.fit.toSheet(at));
  const rows = listOpenings(job).filter(({ wall }) => wall.view === fitted.view.id);
  const spans = new Map([...new Set(rows.map(({ wall }) => wall.id))].flatMap((wall) => spansIn(wall, job, derived.shapes).map((span) => [span.opening.id, span] as const)));
  return (
    <g data-testid="openings">
      {rows.map(({ opening, mark }) => {
        const span = spans.get(opening.id);
        if (!span) return null;
        const isChosen = opening.id === chosen;
        return (
          <g key={opening.id}>
            {isChosen && opening.distance > 0 ? <Dimension look="measure" palette={palette} from={onScreen(span.near)} to={onScreen(span.corner)} label={formatLength(opening.distance, job.units)} /> : null}
            {isChosen ? <path transform={benchTransform(viewport)} d={pathData(rimOf(span), true, fromPlane)} fill={palette.hedge} fillOpacity={0.35} stroke={palette.hedge} strokeWidth={2} vectorEffect="non-scaling-stroke" /> : null}
            <Label at={besideWall(span, onScreen)} text={mark} color={isChosen ? palette.hedge : palette.ink} palette={palette} />
          </g>
        );
      })}
    </g>
  );
}
