import type { PointingWay } from '@/bench/tools';
import type { SaidName } from '@/core/job';
import type { IconName } from '@/ui/icon';

interface KindWords {
  readonly label: string;
  /** What such a piece is called on its card. */
  readonly title: string;
  readonly icon: IconName;
}

/** How each kind of evidence is called. */
export const EVIDENCE_WORDS: Readonly<Record<PointingWay, KindWords>> = {
  length: {
    label: 'Length',
    title: 'Known length',
    icon: 'length',
  },
  circle: {
    label: 'Circle',
    title: 'Circle',
    icon: 'circle',
  },
  rectangle: {
    label: 'Rectangle',
    title: 'Rectangle',
    icon: 'rectangle',
  },
  box: {
    label: 'Box',
    title: 'Box around it',
    icon: 'box',
  },
  straight: {
    label: 'Straight line',
    title: 'Straight line',
    icon: 'straight',
  },
  level: {
    label: 'Level',
    title: 'Level line',
    icon: 'level',
  },
  parallel: {
    label: 'Parallel',
    title: 'Parallel lines',
    icon: 'parallel',
  },
  square: {
    label: 'Square',
    title: 'Right angle',
    icon: 'square',
  },
  equal: {
    label: 'Equal',
    title: 'Equal lengths',
    icon: 'equal',
  },
  angle: {
    label: 'Angle',
    title: 'Known angle',
    icon: 'angle',
  },
  'known-point': {
    label: 'Place',
    title: 'Known place',
    icon: 'place',
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
