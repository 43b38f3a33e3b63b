import type { ShelfEntry, ShelfShape } from './entry';
import { findOnShelf } from './shelf';

/** What a size of some thing usually is. mm. */
export interface Usual {
  readonly name: string;
  readonly least: number;
  readonly most: number;
}

const sidesOf = (shape: ShelfShape): readonly (readonly [suffix: string, mm: number])[] =>
  shape.kind === 'length'
    ? [['', shape.mm]]
    : shape.kind === 'circle'
      ? [['', shape.diameter]]
      : [
          [', width', shape.width],
          [', height', shape.height],
        ];

/** The sizes of things on a shelf that hold every word that was typed, the nearest to a size first: by the ratio, as sizes are compared by eye. */
export function listUsual(shelf: readonly ShelfEntry[], mm: number, text = ''): readonly Usual[] {
  const away = ({ least, most }: Usual) => Math.abs(Math.log(mm / ((least + most) / 2)));
  return findOnShelf(shelf, text)
    .flatMap(({ name, shape, tolerance }) =>
      sidesOf(shape).map(([suffix, size]): Usual => ({
        name: name + suffix,
        least: size - tolerance,
        most: size + tolerance,
      })),
    )
    .sort((a, b) => away(a) - away(b));
}

/** How far a measured size lies outside of what is usual, mm: negative below it, 0 inside; and whether its doubt (one sigma) leaves it open on which side it lies. */
export function againstUsual(
  { value, sigma }: { readonly value: number; readonly sigma: number },
  { least, most }: Usual,
): { readonly outside: number; readonly isOpen: boolean } {
  const outside = Math.min(0, value - least) + Math.max(0, value - most);
  return { outside, isOpen: Math.min(Math.abs(value - least), Math.abs(value - most)) < 2 * sigma };
}
