import { composed, placed, UNMOVED, type Affine } from '../geometry';

const DEGREE = Math.PI / 180;

/** A transform list (CSS Transforms 1, section 8), the first one outermost; undefined where it cannot be read. */
export function readTransform(text: string): Affine | undefined {
  let map: Affine = UNMOVED;
  for (const [, name, inside] of text.matchAll(/([a-zA-Z]{1,10})\s{0,10}\(([^)]*)\)/g)) {
    const numbers = inside!
      .split(/[\s,]+/)
      .filter(Boolean)
      .map(Number);
    const next = numbers.some(Number.isNaN) ? undefined : single(name!, numbers);
    if (!next) return undefined;
    map = composed(map, next);
  }
  return map;
}

function single(name: string, numbers: readonly number[]): Affine | undefined {
  const [a = 0, b, c] = numbers;
  switch (name) {
    case 'matrix':
      return numbers.length === 6 ? (numbers as unknown as Affine) : undefined;
    case 'translate':
      return [1, 0, 0, 1, a, b ?? 0];
    case 'scale':
      return [a, 0, 0, b ?? a, 0, 0];
    case 'rotate': {
      const about: Affine = [1, 0, 0, 1, b ?? 0, c ?? 0];
      return composed(composed(about, placed([0, 0], a * DEGREE)), [1, 0, 0, 1, -(b ?? 0), -(c ?? 0)]);
    }
    case 'skewX':
      return [1, 0, Math.tan(a * DEGREE), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan(a * DEGREE), 0, 1, 0, 0];
    default:
      return undefined;
  }
}
