import type { Bounds, Vec } from '../geometry';
import { createView, type Evidence, type EvidencePoint, type Sheet } from '../job';
import { fitOf, type FittedView } from './fits';

/** Pixels along the longer side of a plane that is looked at without a picture. */
const LONGER_SIDE = 4000;
const MARGIN = 0.04;

/**
 * A plane with reference geometry on it as if it were a sheet: without a picture, exactly to scale, so that it is looked at, snapped on and
 * measured like any view. Its id is that of no view.
 */
export function planeAsView(plane: string, name: string, { min, max }: Bounds): FittedView {
  const [w, h] = [max[0] - min[0], max[1] - min[1]];
  const longer = Math.max(w, h, 1e-3);
  const perMm = LONGER_SIDE / (longer * (1 + 2 * MARGIN));
  const [width, height] = [w, h].map((size) =>
    Math.ceil((Math.max(size, longer / 50) + 2 * MARGIN * longer) * perMm),
  ) as [number, number];
  const middle: Vec = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const sheet: Sheet = {
    id: `plane/${plane}`.slice(0, 64),
    name,
    picture: '0'.repeat(64),
    mediaType: 'none',
    bytes: 0,
    width,
    height,
    kind: 'drawing',
    taken: {},
  };
  const placeOf = ([x, y]: Vec): Vec => [middle[0] + (x - width / 2) / perMm, middle[1] - (y - height / 2) / perMm];
  const [lowerLeft, upperRight]: readonly Vec[] = [
    [0, height],
    [width, 0],
  ];
  const corners = [
    known('lower-left', lowerLeft!, placeOf(lowerLeft!)),
    known('upper-right', upperRight!, placeOf(upperRight!)),
  ];
  return fitOf(
    {
      ...createView(sheet.id, sheet),
      model: 'similarity',
      lens: 'none',
      plane,
      evidence: corners.map(({ piece }) => piece),
      points: corners.map(({ point }) => point),
    },
    sheet,
  );
}

/** A place of the sheet whose coordinates on the plane are known. */
const known = (
  id: string,
  at: Vec,
  [across, up]: Vec,
): { readonly piece: Evidence; readonly point: EvidencePoint } => ({
  point: { id, at, sigma: 0.01 },
  piece: {
    id,
    kind: 'known-point',
    groups: [[id]],
    said: { across: { value: across, written: '' }, up: { value: up, written: '' } },
    guess: false,
    role: 'use',
    held: true,
  },
});
