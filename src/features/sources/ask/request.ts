import type { Asked, Job } from '@/core/job';

export type AskedFor = 'part' | 'furniture' | 'building';

interface Sheet {
  readonly title: string;
  readonly photos: readonly string[];
  readonly sizes: readonly Pick<Asked, 'kind' | 'what'>[];
}

/** What to ask for, by the kind of thing: how to photograph it, and the sizes that no picture shows. */
export const REQUESTS: Readonly<Record<AskedFor, Sheet>> = {
  part: {
    title: 'A part',
    photos: [
      'Lay it on plain paper of another colour, on a table, by daylight and without flash.',
      'Lay a bank card or a steel rule flat beside it, as high as the part is thick if you can.',
      'Hold the phone level above it, so that the part fills the picture but touches no rim.',
      'One photo from above, one of the other side, one of its edge.',
    ],
    sizes: [
      { kind: 'thickness', what: 'its thickness' },
      { kind: 'diameter', what: 'the largest hole, across' },
      { kind: 'diameter', what: 'the smallest hole, across' },
      { kind: 'length', what: 'its greatest length' },
      { kind: 'depth', what: 'depth of any step or countersink' },
    ],
  },
  furniture: {
    title: 'Furniture',
    photos: [
      'Stand back about three times its width, and zoom in: do not go close with a wide lens.',
      'Hold the camera at half its height, upright and square to it: once from the front, once from each side.',
      'One photo of every joint or profile from close by, with a rule beside it.',
    ],
    sizes: [
      { kind: 'length', what: 'overall width' },
      { kind: 'length', what: 'overall height' },
      { kind: 'depth', what: 'overall depth' },
      { kind: 'thickness', what: 'thickness of the boards' },
      { kind: 'length', what: 'height of the seat or shelf above the floor' },
    ],
  },
  building: {
    title: 'A building or a room',
    photos: [
      'One photo of every side from as far back as you can, square to it; then one of each corner, so that two sides show.',
      'Lean a staff or a rule of known length against the wall, upright, in every photo.',
      'Walk once around it with a film, slowly, the camera held level.',
    ],
    sizes: [
      { kind: 'length', what: 'length of the longest wall' },
      { kind: 'length', what: 'height of the door' },
      { kind: 'length', what: 'height of the eaves above the ground' },
      { kind: 'thickness', what: 'thickness of the outer wall, measured in a doorway' },
      { kind: 'depth', what: 'depth of the window reveals' },
    ],
  },
};

/** The request as a message to send: words that somebody without this program understands. */
export function messageFor({ name, asked = [] }: Pick<Job, 'name' | 'asked'>, photos: readonly string[]): string {
  const open = asked.filter(({ answer }) => !answer);
  return [
    `For “${name}” I need some photos and sizes before it is out of reach.`,
    '',
    'Photos:',
    ...photos.map((line, i) => `${i + 1}. ${line}`),
    '',
    ...(open.length > 0
      ? ['Please measure, and write the unit:', ...open.map(({ what }, i) => `${i + 1}. ${what}: ______`)]
      : []),
  ].join('\n');
}
