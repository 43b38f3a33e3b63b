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

/** All shown outlines of a view: one path a layer with its halo, in bench pixels; the group above carries the viewport. */
export const Drawing = memo(function Drawing({ job, derived, fitted, palette, except, fromPlane }: DrawingProps) {
  const layers = useMemo(
    () => job.layers.filter((layer) => layer.show).map((layer) => {
      const outlines = job.outlines.filter((outline) => outline.layer === layer.id && outline.view === fitted.view.id && !except.includes(outline.id));
      const shapes = outlines.flatMap((outline) => derived.shapes.get(outline.id) ?? []);
      return { layer, count: shapes.length, path: shapesPath(shapes, fromPlane) };
    }),
    [job.layers, job.outlines, derived, fitted.view.id, except, fromPlane],
  );
  return (
    <>
      {layers.map(({ layer, path, count }) => (
        <g key={layer.id} fill="none" strokeLinejoin="round" data-testid={`layer-${layer.name}`} role="img" aria-label={`${layer.name}: ${count}`}>
          <path d={path} stroke={palette.halo} strokeWidth={4} strokeOpacity={0.75} vectorEffect="non-scaling-stroke" />
          <path d={path} stroke={palette[layer.color]} strokeWidth={1.8} vectorEffect="non-scaling-stroke" strokeDasharray={layer.lock ? '6 3' : undefined} />
        </g>
      ))}
    </>
  );
});
