import { memo, useMemo } from 'react';
import type { Derived, FittedView } from '@/core/derive';
import type { Job } from '@/core/job';
import type { Palette } from '@/ui/palette';
import type { Laying } from '../laying';
import { shapesPath } from './path-data';

interface DrawingProps {
  readonly job: Job;
  readonly derived: Derived;
  readonly fitted: FittedView;
  readonly palette: Palette;
  /** Outlines that a preview stands in for. */
  readonly except: readonly string[];
  readonly fromPlane: Laying['fromPlane'];
}

/** All shown outlines of a view: one path a layer with its halo and one for its aids, in bench pixels; the group above carries the viewport. */
export const DrawingInk = memo(function DrawingInk({ job, derived, fitted, palette, except, fromPlane }: DrawingProps) {
  const layers = useMemo(
    () =>
      job.layers
        .filter((layer) => layer.show)
        .map((layer) => {
          const outlines = job.outlines.filter(
            (outline) =>
              outline.layer === layer.id && outline.plane === fitted.view.plane && !except.includes(outline.id),
          );
          const shapesOf = (aid: boolean) =>
            outlines.flatMap((outline) => (Boolean(outline.aid) === aid ? (derived.shapes.get(outline.id) ?? []) : []));
          return {
            layer,
            count: outlines.length,
            path: shapesPath(shapesOf(false), fromPlane),
            aids: shapesPath(shapesOf(true), fromPlane),
          };
        }),
    [job.layers, job.outlines, derived, fitted.view.plane, except, fromPlane],
  );
  return (
    <>
      {layers.map(({ layer, path, aids, count }) => (
        <g
          key={layer.id}
          fill="none"
          strokeLinejoin="round"
          data-testid={`layer-${layer.name}`}
          role="img"
          aria-label={`${layer.name}: ${count}`}>
          {aids ? (
            <path
              d={aids}
              stroke={palette.halo}
              strokeWidth={3.4}
              strokeOpacity={0.7}
              vectorEffect="non-scaling-stroke"
            />
          ) : null}
          {aids ? (
            <path
              d={aids}
              stroke={palette.straw}
              strokeWidth={1.3}
              strokeDasharray="10 4"
              vectorEffect="non-scaling-stroke"
              data-testid="aids"
            />
          ) : null}
          <path d={path} stroke={palette.halo} strokeWidth={4} strokeOpacity={0.75} vectorEffect="non-scaling-stroke" />
          <path
            d={path}
            stroke={palette[layer.color]}
            strokeWidth={1.8}
            vectorEffect="non-scaling-stroke"
            strokeDasharray={layer.lock ? '6 3' : undefined}
          />
        </g>
      ))}
    </>
  );
});
