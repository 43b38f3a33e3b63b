/** What a size may have been meant as, when it is off by what a wrong unit or a slipped point makes of it. */
export interface UnitSlip {
  readonly factor: number;
  readonly says:
    | 'a point one place over'
    | 'feet instead of inches'
    | 'inches'
    | 'feet'
    | 'metres'
    | 'millimetres'
    | 'inches instead of feet';
}

/** True size over typed size, for the slips that people make. */
const SLIPS: readonly UnitSlip[] = [
  { factor: 10, says: 'a point one place over' },
  { factor: 0.1, says: 'a point one place over' },
  { factor: 12, says: 'feet instead of inches' },
  { factor: 1 / 12, says: 'inches instead of feet' },
  { factor: 25.4, says: 'inches' },
  { factor: 1 / 25.4, says: 'millimetres' },
  { factor: 304.8, says: 'feet' },
  { factor: 1000, says: 'metres' },
  { factor: 1 / 1000, says: 'millimetres' },
];

/** How far the ratio may be from the slip's own factor, as a share: 10 and 12 stay apart. */
const NEAR = 0.08;

/** The slip that would bring a typed size to what the rest makes it; undefined when none does. Same unit for both. */
export function findUnitSlip(typed: number, comesTo: number): UnitSlip | undefined {
  const ratio = comesTo / typed;
  return SLIPS.find(({ factor }) => Math.abs(Math.log(ratio / factor)) < NEAR);
}
