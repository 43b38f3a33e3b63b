import Svg, { Circle, Line, Path } from 'react-native-svg';
import { usePalette } from '@/ui/palette';

/** How far the beam may tip before it stands against its stop: six sigma. */
const STOP = 6;
const DEGREES_PER_SIGMA = 6;

/**
 * A leftover as a beam on a post: level when there is none, inside the wedge while it is within two sigma, tipped out of it
 * when it is not. `deviations` is the leftover in its own sigmas.
 */
export function Beam({ deviations }: { deviations: number }) {
  const palette = usePalette();
  const tip = Math.max(-STOP, Math.min(STOP, deviations)) * DEGREES_PER_SIGMA;
  const out = Math.abs(deviations) > 2;
  const wedge = (Math.PI / 180) * 2 * DEGREES_PER_SIGMA;
  const [reach, drop] = [34 * Math.cos(wedge), 34 * Math.sin(wedge)];
  const color = out ? palette.berry : palette.hedge;
  return (
    <Svg
      width={84}
      height={40}
      viewBox="-42 -20 84 40"
      accessibilityLabel={`Leftover ${Math.abs(deviations).toFixed(1)} times its own sigma, ${out ? 'outside' : 'inside'} two`}>
      <Path
        d={`M0 0L${reach} ${-drop}A34 34 0 0 1 ${reach} ${drop}ZM0 0L${-reach} ${-drop}A34 34 0 0 0 ${-reach} ${drop}Z`}
        fill={palette.leaf}
      />
      <Line
        x1={-36}
        y1={0}
        x2={36}
        y2={0}
        stroke={color}
        strokeWidth={out ? 3.4 : 2.4}
        strokeLinecap="round"
        transform={`rotate(${tip})`}
      />
      <Circle r={3} fill={palette.paper} stroke={color} strokeWidth={1.6} />
    </Svg>
  );
}
