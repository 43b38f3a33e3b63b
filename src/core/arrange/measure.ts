import type { Measured } from '../adjust';
import type { Read } from './coordinates';
import type { AdjustedScene } from './judge';

/** What stays open of a figure: names of what would have to be known, as `front/turn` or `feature:A:deep`. */
export interface Open {
  readonly open: readonly string[];
}

export const isOpen = (figure: Measured | Open): figure is Open => 'open' in figure;

/** Share of what moves a figure beyond which an open direction moves it too, and of the most that is open beyond which something is named. */
const MOVED = 1e-6;
const NAMED = 0.05;

/**
 * Figures of what was adjusted, the first number that is read, with their plus-minus, first order; by the variance factor where pieces disagree at 1 %. One sigma. Open where something moves the figure of which
 * nothing says anything.
 */
export function measureIn({ solution, covariance, diagnosis }: AdjustedScene): (read: Read) => Measured | Open {
  const { layout, values } = solution;
  const { open, reach } = covariance;
  const factor = diagnosis.isConsistent === false ? diagnosis.varianceFactor! : 1;
  return ({ blocks, numbers }) => {
    const unspoken = blocks.filter((id) => !values.has(id));
    if (unspoken.length > 0) return { open: unspoken };
    const observed = blocks.filter((id) => layout.observed.has(id));
    const joint = covariance.withObserved(observed);
    const columns = columnsOf(blocks, observed, solution);
    const at = blocks.map((id) => [...values.get(id)!]);
    const stepOf = (column: number) =>
      0.1 * (column < layout.unknowns ? reach[column]! : Math.sqrt(joint.get(column, column)) || 1e-9);
    const slopes = columns.map(({ column, block, k }) => {
      const step = stepOf(column);
      const beside = (by: number) => numbers(at.with(block, at[block]!.with(k, at[block]![k]! + by)))[0]!;
      return { column, slope: (beside(step) - beside(-step)) / (2 * step) };
    });
    const free = slopes.filter(({ column }) => column < layout.unknowns);
    const size = Math.hypot(...free.map(({ column, slope }) => slope * reach[column]!));
    const moves = Array.from({ length: open.columns }, (_, k) =>
      free.reduce((sum, { column, slope }) => sum + slope * reach[column]! * open.get(column, k), 0),
    );
    if (Math.hypot(...moves) > MOVED * size) return { open: namesAlong(moves, solution, open) };
    const variance = slopes.reduce(
      (sum, a) => sum + slopes.reduce((part, b) => part + a.slope * b.slope * joint.get(a.column, b.column), 0),
      0,
    );
    return { value: numbers(at)[0]!, sigma: Math.sqrt(Math.max(0, variance) * factor) };
  };
}

/** Where each number of the blocks stands in the joint covariance. */
function columnsOf(
  blocks: readonly string[],
  observed: readonly string[],
  { layout, values }: AdjustedScene['solution'],
) {
  const firsts = new Map(layout.unknown);
  let next = layout.unknowns;
  for (const id of observed) {
    firsts.set(id, next);
    next += values.get(id)!.length;
  }
  return blocks.flatMap((id, block) => values.get(id)!.map((_, k) => ({ column: firsts.get(id)! + k, block, k })));
}

/** Blocks that go along where a figure goes when what is open goes. */
function namesAlong(
  moves: readonly number[],
  { layout, values }: AdjustedScene['solution'],
  open: AdjustedScene['covariance']['open'],
): string[] {
  const goes = Array.from({ length: open.rows }, (_, row) =>
    moves.reduce((sum, move, k) => sum + move * open.get(row, k), 0),
  );
  const most = Math.max(...goes.map(Math.abs));
  return [...layout.unknown].flatMap(([id, first]) =>
    values.get(id)!.some((_, k) => Math.abs(goes[first + k]!) > NAMED * most) ? [id] : [],
  );
}
