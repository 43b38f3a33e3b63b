import type { FittedView } from '@/core/derive';
import { shapeOf } from '@/core/outline';
import type { Palette } from '@/ui/palette';
import { layingOf } from '../laying';
import type { Preview } from '../tools';
import { toScreen, type Viewport } from '../viewport';
import { DimensionLine } from './dimension';
import { pathData, shapesPath } from './path-data';
import { benchTransform } from './selection';

/** What the tool in hand would make: the outline on its way, its set points, a span with ticks. */
export function ToolPreview({
  preview,
  fitted,
  viewport,
  palette,
}: {
  preview: Preview;
  fitted: FittedView;
  viewport: Viewport;
  palette: Palette;
}) {
  const shapes = preview.outlines.map((outline) => shapeOf(outline, fitted.placing));
  const nodes = shapes.flatMap((shape) => shape.nodes.map((node) => toScreen(viewport, fitted.fit.toSheet(node))));
  const points = [...nodes, ...preview.points.map((p) => toScreen(viewport, p))];
  return (
    <g fill="none" data-testid="preview">
      {shapes.map((shape) => {
        const d = shapesPath([shape], layingOf(viewport, fitted.fit).fromPlane);
        return (
          <g key={shape.id} transform={benchTransform(viewport)}>
            <path
              d={d}
              stroke={palette.halo}
              strokeWidth={4.4}
              strokeOpacity={0.75}
              vectorEffect="non-scaling-stroke"
            />
            <path d={d} stroke={palette.berry} strokeWidth={2.2} vectorEffect="non-scaling-stroke" />
          </g>
        );
      })}
      {preview.pieces ? (
        <PiecesMark pieces={preview.pieces} fitted={fitted} viewport={viewport} palette={palette} />
      ) : null}
      {(preview.lines ?? []).map((line, i) => (
        <path
          key={i}
          d={`M${line.map((p) => toScreen(viewport, p).join(' ')).join('L')}`}
          stroke={palette.tide}
          strokeWidth={1.8}
        />
      ))}
      {preview.brush ? <BrushMark brush={preview.brush} viewport={viewport} palette={palette} /> : null}
      {preview.span ? (
        <DimensionLine
          palette={palette}
          look={preview.span.look}
          from={toScreen(viewport, preview.span.from)}
          to={toScreen(viewport, preview.span.to)}
        />
      ) : null}
      {points.map(([x, y], i) => (
        <rect
          key={i}
          x={x - 3.5}
          y={y - 3.5}
          width={7}
          height={7}
          fill={palette.paper}
          stroke={palette.berry}
          strokeWidth={1.6}
        />
      ))}
    </g>
  );
}

/** Pieces that would come (as the drawing) or go (struck through: thick, broken, straw). */
function PiecesMark({
  pieces: { list, look },
  fitted,
  viewport,
  palette,
}: {
  pieces: NonNullable<Preview['pieces']>;
  fitted: FittedView;
  viewport: Viewport;
  palette: Palette;
}) {
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const d = list.map((piece) => pathData([piece], false, fromPlane)).join('');
  const [color, width, dashes] =
    look === 'goes' ? ([palette.straw, 5, '3 5'] as const) : ([palette.berry, 2, undefined] as const);
  return (
    <g transform={benchTransform(viewport)} data-testid={`pieces-${look}`}>
      <path
        d={d}
        stroke={palette.halo}
        strokeWidth={width + 2.4}
        strokeOpacity={0.75}
        vectorEffect="non-scaling-stroke"
      />
      <path d={d} stroke={color} strokeWidth={width} strokeDasharray={dashes} vectorEffect="non-scaling-stroke" />
    </g>
  );
}

/** Where the brush goes: as wide as it is, with its rim. */
function BrushMark({
  brush: { path, radius, does },
  viewport,
  palette,
}: {
  brush: NonNullable<Preview['brush']>;
  viewport: Viewport;
  palette: Palette;
}) {
  const width = 2 * radius * viewport.zoom;
  const places = path.map((place) => toScreen(viewport, place));
  const [x, y] = places.at(-1)!;
  const d = places.length > 1 ? `M${places.map((place) => place.join(' ')).join('L')}` : '';
  return (
    <g data-testid="brush">
      <path
        d={d}
        stroke={does === 'rub' ? palette.paper : palette.ink}
        strokeOpacity={0.7}
        strokeWidth={width}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      <circle cx={x} cy={y} r={Math.max(2, width / 2)} stroke={palette.halo} strokeWidth={3} />
      <circle cx={x} cy={y} r={Math.max(2, width / 2)} stroke={palette.ink} strokeWidth={1.2} />
    </g>
  );
}
