import { pointAt, type Vec } from '@/core/geometry';
import type { Chain, Shape } from '@/core/outline';
import type { Palette } from '@/ui/palette';
import { layingOf } from '../laying';
import { listHandles, type ChosenPart, type Mark } from '../tools';
import { fromBench, toScreen, type Viewport } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { shapesPath } from './path-data';

type ChosenOutlines = Extract<Mark, { kind: 'chosen-outlines' }>;

interface SelectionProps extends DrawnProps {
  readonly chosen: ChosenOutlines;
}

/** What is selected: thicker, with square nodes at corners and round hollow ones where a curve passes through. */
export function Selection({ job, derived, fitted, viewport, palette, chosen }: SelectionProps) {
  const place = (plane: Vec) => toScreen(viewport, fitted.fit.toSheet(plane));
  return (
    <g fill="none">
      {job.outlines
        .filter((outline) => chosen.outlines.includes(outline.id) && outline.plane === fitted.view.plane)
        .map((outline) => {
          const shape = derived.shapes.get(outline.id);
          if (!shape) return null;
          return (
            <g key={outline.id} data-testid={`selected-${outline.id}`}>
              <path
                transform={benchTransform(viewport)}
                d={shapesPath([shape], layingOf(viewport, fitted.fit).fromPlane)}
                stroke={palette.berry}
                strokeWidth={3.2}
                vectorEffect="non-scaling-stroke"
              />
              {outline.shape === 'chain' && chosen.part && chosen.outlines.length === 1 ? (
                <Nodes chain={outline} shape={shape} place={place} palette={palette} part={chosen.part} />
              ) : null}
            </g>
          );
        })}
    </g>
  );
}

/** Bench pixels to the screen, as an SVG transform. */
export function benchTransform(viewport: Viewport): string {
  const [x, y] = fromBench(viewport, [0, 0]);
  return `matrix(${viewport.zoom} 0 0 ${viewport.zoom} ${x} ${y})`;
}

interface NodesProps {
  readonly chain: Chain;
  readonly shape: Shape;
  readonly place: (plane: Vec) => Vec;
  readonly palette: Palette;
  readonly part: ChosenPart;
}

function Nodes({ chain, shape, place, palette, part }: NodesProps) {
  const handles = listHandles(chain, shape).filter((handle) => handle.node === part.node);
  const nodeIndex = chain.nodes.findIndex((node) => node.id === part.node);
  const [segment] = part.segment ? [shape.pieces[part.segment.index]] : [];
  return (
    <>
      {nodeIndex >= 0
        ? handles.map((handle) => {
            const [from, to] = [place(shape.nodes[nodeIndex]!), place(handle.at)];
            return (
              <g key={handle.side}>
                <path d={`M${from[0]} ${from[1]}L${to[0]} ${to[1]}`} stroke={palette.ink} strokeWidth={1.2} />
                <path
                  d={`M${to[0] - 5} ${to[1]}l5 -5l5 5l-5 5z`}
                  fill={palette.paper}
                  stroke={palette.ink}
                  strokeWidth={1.4}
                />
              </g>
            );
          })
        : null}
      {chain.nodes.map((node, i) => (
        <NodeMark
          key={node.id}
          at={place(shape.nodes[i]!)}
          through={isThrough(chain, i)}
          chosen={node.id === part.node}
          palette={palette}
        />
      ))}
      {segment && part.segment ? <PlaceMark at={place(pointAt(segment, part.segment.t))} palette={palette} /> : null}
    </>
  );
}

/** A node that a curve passes smoothly. */
function isThrough(chain: Chain, index: number): boolean {
  const count = chain.segments.length;
  const kindAt = (i: number) => (chain.closed ? chain.segments[(i + count) % count] : chain.segments[i])?.kind;
  return chain.nodes[index]!.smooth && kindAt(index - 1) === 'curve' && kindAt(index) === 'curve';
}

function NodeMark({
  at: [x, y],
  through,
  chosen,
  palette,
}: {
  at: Vec;
  through: boolean;
  chosen: boolean;
  palette: Palette;
}) {
  const fill = chosen ? palette.berry : palette.paper;
  return through ? (
    <circle cx={x} cy={y} r={5} fill={fill} stroke={palette.berry} strokeWidth={1.8} />
  ) : (
    <rect x={x - 4.5} y={y - 4.5} width={9} height={9} fill={fill} stroke={palette.berry} strokeWidth={1.8} />
  );
}

function PlaceMark({ at: [x, y], palette }: { at: Vec; palette: Palette }) {
  return <path d={`M${x - 7} ${y}H${x + 7}M${x} ${y - 7}V${y + 7}`} stroke={palette.straw} strokeWidth={2.2} />;
}
