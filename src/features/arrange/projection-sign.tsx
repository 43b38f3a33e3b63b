import type { ProjectionMethod } from '@/core/arrange';
import { usePalette } from '@/ui/palette';

const CONE = 'M4 10L22 6V26L4 22z';
const RINGS = 'M40 6a10 10 0 100 20a10 10 0 100-20M40 10a6 6 0 100 12a6 6 0 100-12';
const AXES = 'M1 16h24M27 16h26M40 3v26';

/** The standard's sign for how views are laid out (ISO 5456-2, from memory): a truncated cone, and what is seen of it from its narrow end at the left: drawn beyond it in first angle, before it in third. */
export function ProjectionSign({ projection }: { projection: ProjectionMethod }) {
  const palette = usePalette();
  // In first angle the cone stands left of its rings, in third right of them.
  const [cone, rings] = projection === 'first' ? [0, 0] : [28, -27];
  return (
    <svg width={54} height={32} viewBox="0 0 54 32" role="img" aria-label={`Sign of ${projection} angle`} fill="none">
      <g stroke={palette.ink} strokeWidth={1.4}>
        <path d={CONE} transform={`translate(${cone} 0)`} />
        <path d={RINGS} transform={`translate(${rings} 0)`} />
      </g>
      <path d={AXES} stroke={palette.quiet} strokeWidth={0.9} strokeDasharray="7 2 2 2" />
    </svg>
  );
}
