import { applied } from '@/core/geometry';
import { layingOf } from '../laying';
import { listOthers } from '../others';
import type { DrawnProps } from './drawn-props';
import { shapesPath } from './path-data';

/** What is drawn in the other views of the plane, or of the side, faint, in bench pixels. */
export function OthersInk({ job, derived, fitted, viewport, palette }: DrawnProps) {
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const shown = new Set(job.layers.filter(({ show }) => show).map(({ id }) => id));
  return (
    <g data-testid="others-ink" fill="none">
      {listOthers(derived, fitted).map(({ fitted: { view }, onto }) => {
        const shapes = job.outlines
          .filter((outline) => outline.plane === view.plane && shown.has(outline.layer) && !outline.aid)
          .flatMap(({ id }) => derived.shapes.get(id) ?? []);
        return (
          <path
            key={view.id}
            data-view={view.name}
            d={shapesPath(shapes, (place) => fromPlane(applied(onto, place)))}
            stroke={palette.quiet}
            strokeWidth={1.2}
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </g>
  );
}
