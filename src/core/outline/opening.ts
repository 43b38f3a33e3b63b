import { parameterAt, pieceLength, partOf, type Path } from '../geometry';
import type { Chain } from './outline';
import type { Opening } from './recipe';

/** A stretch of one piece, in its own parameter. */
interface Gap {
  readonly piece: number;
  readonly from: number;
  readonly to: number;
}

function gapOf(opening: Opening, chain: Chain, { pieces }: Path): Gap | undefined {
  const piece = chain.nodes.findIndex(({ id }) => id === opening.segment);
  const whole = pieces[piece];
  if (!whole) return undefined;
  const length = pieceLength(whole);
  const [near, far] = [opening.distance, opening.distance + opening.width];
  const [from, to] = opening.from === 'start' ? [near, far] : [length - far, length - near];
  return to > 0 && from < length ? { piece, from: parameterAt(whole, from), to: parameterAt(whole, to) } : undefined;
}

/**
 * The line of a wall in pieces between its openings, laid out along it. Weak: a line whose corners are finished has its openings on its sharp shape.
 */
export function betweenOpenings(path: Path, chain: Chain, openings: readonly Opening[]): readonly Path[] {
  const gaps = openings.flatMap((opening) => (opening.outline === chain.id ? (gapOf(opening, chain, path) ?? []) : [])).sort((a, b) => a.piece + a.from - b.piece - b.from);
  if (gaps.length === 0) return [path];
  const runs: Path['pieces'][number][][] = [[]];
  path.pieces.forEach((piece, i) => {
    let at = 0;
    for (const gap of gaps.filter((other) => other.piece === i)) {
      if (gap.from > at) runs.at(-1)!.push(partOf(piece, at, gap.from));
      if (gap.to > at) runs.push([]);
      at = Math.max(at, gap.to);
    }
    if (at < 1) runs.at(-1)!.push(partOf(piece, at, 1));
  });
  // Around the start of a closed line the last run goes on into the first.
  const joined = path.closed && runs.length > 1 ? [[...runs.at(-1)!, ...runs[0]!], ...runs.slice(1, -1)] : runs;
  return joined.filter((pieces) => pieces.length > 0).map((pieces) => ({ closed: false, pieces }));
}
