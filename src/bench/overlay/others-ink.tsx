import { layingOf } from '../laying';
import { listOthers } from '../others';
import type { DrawnProps } from './drawn-props';
import { shapesPath } from './path-data';

/** What is drawn on the other views of the plane, faint, in bench pixels. */
export function OthersInk({ job, derived, fitted, viewport, palette }: DrawnProps) {
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const shown = new Set(job.layers.filter(({ show }) => show).map(({ id }) => id));
  return (
    <g data-testid="others-ink" fill="none">
      {listOthers(derived.views.values(), fitted).map(({ view }) => {
        const shapes = job.outlines
          .filter((outline) => outline.plane === view.plane && shown.has(outline.layer) && !outline.aid)
          .flatMap(({ id }) => derived.shapes.get(id) ?? []);
        return (
          <path
            key={view.id}
            data-view={view.name}
            d={shapesPath(shapes, fromPlane)}
            stroke={palette.quiet}
            strokeWidth={1.2}
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </g>
  );
}
