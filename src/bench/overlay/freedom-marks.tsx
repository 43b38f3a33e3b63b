import type { Vec } from '@/core/geometry';
import type { Freedom } from '@/core/relate';
import { freedomsIn } from '../freedoms';
import { toScreen } from '../viewport';
import type { DrawnProps } from './drawn-props';

/** How far its arrows reach, CSS px. */
const REACH = 13;
const HEAD = 4;

/** What is left free: arrows along which a place can still move, a square where it cannot; a ring around circles whose size is open. */
export function FreedomMarks({ job, derived, fitted, viewport, palette }: DrawnProps) {
  const screen = (plane: Vec) => toScreen(viewport, fitted.fit.toSheet(plane));
  return (
    <g data-testid="freedom-marks" fill="none">
      {freedomsIn(job, derived, fitted.view.plane).map((freedom) => {
        const [x, y] = screen(freedom.at);
        const data = `${arrowsOf(freedom, screen)}${freedom.grows ? ringOf([x, y], REACH + 4) : ''}`;
        return (
          <g key={`${freedom.outline}/${freedom.node}`} data-ways={freedom.ways}>
            <path d={data} stroke={palette.halo} strokeWidth={5} strokeOpacity={0.85} />
            <path d={data} stroke={palette.tide} strokeWidth={2} />
            {freedom.ways === 0 ? (
              <rect
                x={x - 4.5}
                y={y - 4.5}
                width={9}
                height={9}
                fill={palette.ink}
                stroke={palette.halo}
                strokeWidth={1.5}
              />
            ) : (
              <circle cx={x} cy={y} r={2.5} fill={palette.tide} />
            )}
          </g>
        );
      })}
    </g>
  );
}

function arrowsOf({ at, ways, along }: Freedom, screen: (plane: Vec) => Vec): string {
  if (ways === 0) return '';
  const directions: readonly Vec[] =
    ways === 1
      ? [along!]
      : [
          [1, 0],
          [0, 1],
        ];
  const [x, y] = screen(at);
  return directions
    .flatMap(([u, v]) => {
      const [p, q] = screen([at[0] + u, at[1] + v]);
      const size = Math.hypot(p - x, q - y) || 1;
      return [1, -1].map((side) => arrow([x, y], [(side * (p - x)) / size, (side * (q - y)) / size]));
    })
    .join('');
}

function arrow([x, y]: Vec, [u, v]: Vec): string {
  const [tipX, tipY] = [x + REACH * u, y + REACH * v];
  const barb = (side: number) => `${tipX - HEAD * u - side * HEAD * v} ${tipY - HEAD * v + side * HEAD * u}`;
  return `M${x + 4 * u} ${y + 4 * v}L${tipX} ${tipY}M${barb(1)}L${tipX} ${tipY}L${barb(-1)}`;
}

const ringOf = ([x, y]: Vec, radius: number) =>
  `M${x - radius} ${y}a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 ${-2 * radius} 0`;
