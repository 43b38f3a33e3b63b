import type { Apart, Arranged, Grown, Standing } from '@/core/derive';
import type { Job } from '@/core/job';
import { formatLength, type Units } from '@/core/units';
import { DIRECTION_WORDS } from '@/ui/feature-words';
import { measuredInWords } from './shared-words';

const APART: Readonly<Record<Apart, string>> = {
  'shows-nothing': 'It shows nothing shared yet. Point at a shared line in it.',
  'lies-on-points': 'It lies on known points of its own, and stands by those.',
  'only-looked-at': 'It is kept only to look at.',
  'without-scale': 'It has no size of its own. When it joins, it takes its scale from what it shares.',
  'nothing-sized': 'Nothing says yet how large any of this is. Set the scale of one view under Fit.',
  open: 'What it shares does not tell how large it is: point at a second line, or one farther away.',
  pending: 'How it stands among the others is being worked out.',
  'fits-none':
    'What it shows fits none of the others, so it is left out. See whether it shows another side, or is mirrored, and what you pointed at in it.',
  'not-found': 'What is said of the views together cannot be true. Look at what does not belong.',
};

export const apartInWords = (why: Apart | undefined): string =>
  why === undefined ? 'Say which side it shows, under Sides.' : APART[why];

/** The largest of what a view's places leave over, mm. */
export const mostLeftOver = ({ seen }: Standing): number =>
  Math.max(0, ...seen.flatMap(({ off }) => off.map(({ mm }) => Math.abs(mm))));

const ANGLE = 180 / Math.PI;

/** How a view stands: what it leaves over, what nothing says, how askew it lies. */
export function standingInWords(standing: Standing, units: Units): readonly string[] {
  const { byZero, seen, askew, isAskew } = standing;
  const odd = seen.filter(({ suspect }) => suspect);
  return [
    seen.length > 0
      ? `What it shows lies within ${formatLength(mostLeftOver(standing), units)} of where all have it.`
      : '',
    odd.length > 0 ? 'One of its places does not belong with the others.' : '',
    ...byZero.map(
      (direction) => `Nothing says how far ${DIRECTION_WORDS[direction]} it stands: its own zero is taken there.`,
    ),
    Math.abs(askew) * ANGLE > 0.05
      ? `It is turned ${(Math.abs(askew) * ANGLE).toFixed(2)}° to the others${isAskew ? ', far more than a view that was laid level' : ''}.`
      : '',
  ].filter((sentence) => sentence !== '');
}

/** What joining does, or did, to its scale. */
export function grownInWords({ by, sigma }: Grown, joins: boolean): string {
  const share = `${(100 * Math.abs(by)).toFixed(2)} %`;
  const way = by > 0 ? 'larger' : 'smaller';
  const own = `its own plus-minus of ±${(200 * sigma).toFixed(2)} %`;
  const within = Math.abs(by) <= 2 * sigma ? `within ${own}` : `more than ${own}`;
  return joins
    ? `All together make it ${share} ${way}, ${within}.`
    : `Joining would make it ${share} ${way}, ${within}.`;
}

/** What does not belong with the rest: sizes that were said, and places that were pointed at. */
export function oddOnes({ features, spans, views }: Job, arranged: Arranged, units: Units): readonly string[] {
  const nameOf = (id: string) => features.find((feature) => feature.id === id)?.name ?? '';
  const sizes = spans.flatMap(({ id, from, to, said }) => {
    const read = arranged.spans.get(id);
    return read?.suspect && read.comesTo
      ? [
          `From ${nameOf(from)} to ${nameOf(to)} is said to be ${said.written}, and comes to ${measuredInWords(read.comesTo, units)}. Read that size again, or hold it back.`,
        ]
      : [];
  });
  const places = [...arranged.stands.values()].flatMap(({ view, seen }) => {
    const odd = new Set(seen.filter(({ suspect }) => suspect).map(({ feature }) => feature));
    const name = views.find(({ id }) => id === view)?.name ?? '';
    return [...odd].map(
      (feature) => `${nameOf(feature)} does not lie in ${name} where the others have it. Point at it again there.`,
    );
  });
  const leftOut = views
    .filter(({ id }) => arranged.apart.get(id)?.why === 'fits-none')
    .map(({ name }) => `What ${name} shows fits none of the others: it is left out, and they are fitted without it.`);
  return [...leftOut, ...sizes, ...places];
}
