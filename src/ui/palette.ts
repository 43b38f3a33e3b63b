import { useColorScheme } from 'react-native';

/** The colours of the bench, by role. Every pair that carries text passes WCAG AA (checked by axe in the browser tests). */
export interface Palette {
  readonly bench: string;
  readonly paper: string;
  readonly ink: string;
  readonly quiet: string;
  readonly rule: string;
  readonly hedge: string;
  readonly onHedge: string;
  readonly leaf: string;
  readonly berry: string;
  readonly straw: string;
  readonly tide: string;
  readonly plum: string;
  /** Around marks on a picture: the opposite lightness, so that they read on snow and on soot. */
  readonly halo: string;
  readonly dark: boolean;
}

const LIGHT: Palette = {
  bench: '#EFEBE0',
  paper: '#FBF9F3',
  ink: '#20261F',
  quiet: '#566053',
  rule: '#D8D3C4',
  hedge: '#2F5D46',
  onHedge: '#FBF9F3',
  leaf: '#DCE8D8',
  berry: '#B3243B',
  straw: '#8A5C06',
  tide: '#1B6B75',
  plum: '#69408F',
  halo: '#FFFFFF',
  dark: false,
};
const DARK: Palette = {
  bench: '#12160F',
  paper: '#1B211A',
  ink: '#E4EADF',
  quiet: '#9BA797',
  rule: '#38413A',
  hedge: '#8FC1A2',
  onHedge: '#12160F',
  leaf: '#2A3A2E',
  berry: '#FF6B7D',
  straw: '#F0BC5A',
  tide: '#63C2CC',
  plum: '#C29BE3',
  halo: '#0B0E0A',
  dark: true,
};

export function usePalette(): Palette {
  return useColorScheme() === 'dark' ? DARK : LIGHT;
}

export function paletteFor(dark: boolean): Palette {
  return dark ? DARK : LIGHT;
}

export const FONT = {
  text: 'Atkinson Hyperlegible Next',
  figures: 'Atkinson Hyperlegible Mono',
  title: 'Bricolage Grotesque',
} as const;
