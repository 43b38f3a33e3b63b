import { findNameOf, findRegionAt, namesIn, type ViewRegion } from '@/core/derive';
import type { NamedRegion } from '@/core/job';
import type { Vec } from '@/core/geometry';
import { wellInside, type Region } from '@/core/planar';
import type { Palette } from '@/ui/palette';
import { layingOf } from '../laying';
import { useRegions } from '../regions';
import { toScreen } from '../viewport';
import type { DrawnProps } from './drawn-props';
import { labelAround, type Labelling } from './labels';
import { pathData } from './path-data';
import { benchTransform } from './selection';

interface RegionMarksProps extends DrawnProps {
  /** A place in the region that was pointed at. View plane. */
  readonly at: Vec | undefined;
}

const TINTS = { material: 'hedge', opening: 'ink', room: 'tide', zone: 'plum' } as const;

function tintOf({ kind, color }: Partial<Pick<NamedRegion, 'kind' | 'color'>>, palette: Palette): string {
  const own = kind && kind in TINTS ? TINTS[kind as keyof typeof TINTS] : 'straw';
  return palette[color ?? own];
}

const places = new WeakMap<Region, Vec>();

/** Where the name of a region stands, worked out once. */
function nameAt(region: Region): Vec {
  const place = places.get(region) ?? wellInside(region);
  places.set(region, place);
  return place;
}

/** Named regions in their tints; the one that is pointed at stronger than the rest. */
export function RegionMarks({ job, derived, fitted, viewport, palette, at }: RegionMarksProps) {
  const { value: regions = [] } = useRegions(fitted.view.plane);
  const named = namesIn(job, derived, fitted.view.plane);
  const chosen = at && findRegionAt(regions, at);
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const pathOf = ({ around, holes }: Region) =>
    [around, ...holes].map(({ pieces }) => pathData(pieces, true, fromPlane)).join('');
  const shown = regions
    .map((region) => ({ region, name: findNameOf(region, named) }))
    .filter(({ region, name }) => name || region === chosen);
  return (
    <g data-testid="regions">
      {shown.map(({ region, name }, i) => (
        <path
          key={i}
          transform={benchTransform(viewport)}
          d={pathOf(region)}
          fillRule="evenodd"
          fill={tintOf(name ?? {}, palette)}
          fillOpacity={region === chosen ? 0.5 : 0.26}
          stroke={region === chosen ? palette.ink : 'none'}
          strokeWidth={2}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </g>
  );
}

/** The names of regions, well inside of them. */
export function regionLabels(
  { job, derived, fitted, viewport, palette }: DrawnProps,
  regions: readonly ViewRegion[],
): Labelling {
  const named = namesIn(job, derived, fitted.view.plane);
  return {
    labels: regions.flatMap((region) => {
      const name = findNameOf(region, named);
      return name
        ? [
            labelAround(toScreen(viewport, fitted.fit.toSheet(nameAt(region))), {
              key: name.id,
              text: name.name,
              color: palette.ink,
            }),
          ]
        : [];
    }),
  };
}
