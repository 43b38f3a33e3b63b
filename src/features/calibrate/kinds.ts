import type { PointingWay } from '@/bench/tools';
import type { SaidName } from '@/core/job';
import type { IconName } from '@/ui/icon';

interface KindWords {
  readonly label: string;
  /** What such a piece is called on its card. */
  readonly title: string;
  readonly icon: IconName;
  /** What to point at, one line for each place or group until it is complete. */
  readonly hints: readonly string[];
}

/** How each kind of evidence is called and asked for. */
export const KIND_WORDS: Readonly<Record<PointingWay, KindWords>> = {
  length: {
    label: 'Length',
    title: 'Known length',
    icon: 'length',
    hints: ['Point at one end of something you know.', 'Point at its other end.', 'Type how long it is.'],
  },
  circle: {
    label: 'Circle',
    title: 'Circle',
    icon: 'circle',
    hints: [
      'Point inside something round, and its rim is found. Or point at the rim itself.',
      'Point at the rim again, a third of the way round.',
      'Point at the rim once more.',
      'Type the diameter, or set more points on the rim.',
    ],
  },
  rectangle: {
    label: 'Rectangle',
    title: 'Rectangle',
    icon: 'rectangle',
    hints: [
      'Point inside it, and its four sides are found. Or point at two places on the side that is its width.',
      'And the second place on that side.',
      'Now two places on the next side round.',
      'And the second place on that side.',
      'Two places on the third side.',
      'And the second place on that side.',
      'Two places on the last side.',
      'And the second place on that side.',
      'Type what you know of it.',
    ],
  },
  box: {
    label: 'Box',
    title: 'Box around it',
    icon: 'box',
    hints: [
      'Point at two places on what it stands on.',
      'And the second place.',
      'Point at where it reaches furthest on the right.',
      'Point at its highest place.',
      'Point at where it reaches furthest on the left.',
      'Type what you know of its width and height, and what they span.',
    ],
  },
  straight: {
    label: 'Straight',
    title: 'Straight line',
    icon: 'straight',
    hints: [
      'Tap an edge that is straight in truth: it is followed as far as it goes. Or have one looked for.',
      'Point further along it.',
      'And once more, far along.',
      'Use it, or set more points along it.',
    ],
  },
  level: {
    label: 'Level',
    title: 'Level line',
    icon: 'level',
    hints: [
      'Point at one end of something level or upright.',
      'Point at its other end.',
      'Type its angle: 0 is level, 90 is upright.',
    ],
  },
  parallel: {
    label: 'Parallel',
    title: 'Parallel lines',
    icon: 'parallel',
    hints: [
      'Point at two places on one line.',
      'And the second place.',
      'Two places on the line beside it.',
      'And the second place.',
      'Use it.',
    ],
  },
  square: {
    label: 'Square',
    title: 'Right angle',
    icon: 'square',
    hints: [
      'Point at two places on one line.',
      'And the second place.',
      'Two places on the line square to it.',
      'And the second place.',
      'Use it.',
    ],
  },
  equal: {
    label: 'Equal',
    title: 'Equal lengths',
    icon: 'equal',
    hints: [
      'Point at the ends of one length.',
      'And its other end.',
      'The ends of one that is as long.',
      'And its other end.',
      'Use it.',
    ],
  },
  angle: {
    label: 'Angle',
    title: 'Known angle',
    icon: 'angle',
    hints: [
      'Point along the first side, from the corner.',
      'And the second place.',
      'Point along the other side, from the corner.',
      'And the second place.',
      'Type the angle between them.',
    ],
  },
  'known-point': {
    label: 'Place',
    title: 'Known place',
    icon: 'place',
    hints: ['Point at a place whose position you know.', 'Type how far across and up it lies.'],
  },
};

export const SIZE_WORDS: Readonly<Record<SaidName, string>> = {
  length: 'Length',
  diameter: 'Diameter',
  width: 'Width',
  height: 'Height',
  angle: 'Angle',
  across: 'Across',
  up: 'Up',
};

/** The hint for a piece on its way. */
export function hintForEvidence(kind: PointingWay, role: 'use' | 'check', count: number): string {
  const { hints } = KIND_WORDS[kind];
  const hint = hints[Math.min(count, hints.length - 1)] ?? '';
  if (role === 'use' || kind !== 'length') return hint;
  return ['Check it: point at one end of a second known size.', 'Point at its other end.', 'Type what it should be.'][
    Math.min(count, 2)
  ]!;
}
