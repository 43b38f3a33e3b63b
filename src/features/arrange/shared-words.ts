import type { Measured } from '@/core/adjust';
import type { Arranged, End, ProposedLine, Standing } from '@/core/derive';
import type { Feature } from '@/core/job';
import { DIRECTIONS, type Direction } from '@/core/space';
import { formatLength, type Units } from '@/core/units';
import { DIRECTION_WORDS } from '@/ui/feature-words';

export const measuredInWords = ({ value, sigma }: Measured, units: Units): string =>
  formatLength(value, units, sigma > 0 ? sigma : undefined);

/** Below everything of which it is known how high it lies. mm */
const LOWEST = -1e12;

/** Where a shared line lies along its direction, to put lines in order; what nothing tells comes last. mm */
export const rankOf = ({ id, along }: Feature, { coordinate }: Arranged): number =>
  along ? (coordinate(id, along)?.value ?? LOWEST) : 0;

/** Where a shared line or place lies: "up 318.2 mm ±0.4"; what nothing tells is said. */
export function whereInWords(feature: Feature, { coordinate }: Arranged, units: Units): string {
  const directions = feature.along ? [feature.along] : DIRECTIONS;
  const known = directions.flatMap((direction) => {
    const found = coordinate(feature.id, direction);
    return found ? [`${DIRECTION_WORDS[direction]} ${measuredInWords(found, units)}`] : [];
  });
  return known.length > 0 ? known.join(', ') : 'nothing tells yet where it lies';
}

/** That a view shows it, how often it was pointed at there, and what that leaves over: "Front, 2 places, off by 0.8 mm at most". */
export function seenInWords(
  view: string,
  count: number,
  standing: Standing | undefined,
  feature: string,
  units: Units,
): string {
  const places = count > 1 ? `, ${count} places` : '';
  const left = standing?.seen.filter((seen) => seen.feature === feature) ?? [];
  const off = left.flatMap((seen) => seen.off.map(({ mm }) => Math.abs(mm)));
  if (off.length === 0) return `Seen in ${view}${places}`;
  const worst = `Seen in ${view}${places}, off by ${formatLength(Math.max(...off), units)}${count > 1 ? ' at most' : ''}`;
  if (left.some(({ suspect }) => suspect)) return `${worst}: it does not belong with the others`;
  return left.some(({ normalized = 0 }) => Math.abs(normalized) > 2) ? `${worst}, more than pointing explains` : worst;
}

const FARTHEST: Readonly<Record<Direction, Readonly<Record<End, string>>>> = {
  up: { least: 'the lowest', most: 'the highest' },
  across: { least: 'the farthest left', most: 'the farthest right' },
  deep: { least: 'the farthest in front', most: 'the farthest back' },
};

/** "Front, Side and Top". */
const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** What a proposed line is: "Base line: the lowest in Front and Side". */
export function endInWords(
  { along, end, seen, feature }: ProposedLine,
  name: string,
  nameOf: (view: string) => string,
): string {
  const views = listed([...new Set(seen.map(({ view }) => view))].map(nameOf));
  return `${name}: ${FARTHEST[along][end]} ${feature === undefined ? '' : 'also '}in ${views}`;
}

/** Why a proposed line may be two: what is drawn reaches farther in one view than in another. */
export const reachesInWords = ({ reaches }: ProposedLine, nameOf: (view: string) => string, units: Units): string =>
  `It reaches ${listed(reaches.map((reach) => `${measuredInWords(reach, units)} in ${nameOf(reach.view)}`))}: is it the same?`;
