import type { Measured } from '@/core/adjust';
import type { Arranged } from '@/core/derive';
import type { Feature, Job } from '@/core/job';
import { DIRECTIONS } from '@/core/space';
import { formatLength, type Units } from '@/core/units';
import { DIRECTION_WORDS } from '@/ui/feature-words';

export const measuredInWords = ({ value, sigma }: Measured, units: Units): string =>
  formatLength(value, units, sigma > 0 ? sigma : undefined);

/** Where a shared line or place lies: "up 318.2 mm ±0.4"; what nothing tells is said. */
export function whereInWords(feature: Feature, { coordinate }: Arranged, units: Units): string {
  const directions = feature.along ? [feature.along] : DIRECTIONS;
  const known = directions.flatMap((direction) => {
    const found = coordinate(feature.id, direction);
    return found ? [`${DIRECTION_WORDS[direction]} ${measuredInWords(found, units)}`] : [];
  });
  return known.length > 0 ? known.join(', ') : 'nothing tells yet where it lies';
}

/** Which views show it, and how often each was pointed at: "Front 2, Side 1". */
export function seenInWords({ seen }: Feature, { views }: Pick<Job, 'views'>): string {
  const counted = views.flatMap(({ id, name }) => {
    const count = seen.filter(({ view }) => view === id).length;
    return count > 0 ? [count > 1 ? `${name} (${count} times)` : name] : [];
  });
  return counted.length > 0 ? `Seen in ${counted.join(', ')}.` : 'No view shows it.';
}
