import { placeLabels, type LabelLine } from '@/bench/overlay/place-labels';
import type { FoldedView } from '@/core/derive';
import { applied, boxAround, composed, type Affine, type Box, type Vec } from '@/core/geometry';

/** Where a name stands: its middle and its room, CSS px. */
export interface PlacedName {
  readonly view: FoldedView;
  readonly slip: { readonly at: Vec; readonly size: Vec };
}

/** Height of a name, what a letter of it takes, and its rims. CSS px */
const [TALL, LETTER, RIMS] = [30, 7.5, 22];
const GAP = 3;
/** What the ring takes along the foot of the bench, and how far from its rims the slider that tips and the buttons stand. CSS px */
const RING = 62;
const [TIP, BUTTONS] = [
  { aside: 28, tall: 120 },
  { aside: 30, tall: 140 },
];

/**
 * Where the names of views that are looked at together stand: beside their pictures and on no other, or where there is no such place over a picture, but never over each other. A view whose name finds no room
 * has none here; it is in the row of views.
 */
export function namesOf(views: readonly FoldedView[], toScreen: Affine, room: Vec): readonly PlacedName[] {
  const free: Vec = [room[0], room[1] - RING];
  const boxes = views.map(({ rim, look }) => boxAround(rim.map((at) => applied(composed(toScreen, look), at))));
  const sizes = views.map(({ fitted }): Vec => [LETTER * fitted.source.name.length + RIMS, TALL]);
  const wishes = views.map(({ fitted }, i) => {
    const covered = (at: Vec) => boxes.filter((box) => isOver(at, sizes[i]!, box)).length;
    return {
      key: fitted.source.id,
      size: sizes[i]!,
      // Those that hide no picture come first.
      places: placesBeside(boxes[i]!, sizes[i]!, free)
        .map((at) => ({ at, hides: covered(at) }))
        .sort((a, b) => a.hides - b.hides),
    };
  });
  return placeLabels(wishes, handlesIn(room), free).flatMap(({ at, isFolded }, i) =>
    isFolded ? [] : [{ view: views[i]!, slip: { at, size: sizes[i]! } }],
  );
}

/** What is drawn and pressed over the views, as lines that no name hides. */
const handlesIn = ([width, height]: Vec): readonly LabelLine[] => [
  { of: '', from: [TIP.aside, (height - TIP.tall) / 2], to: [TIP.aside, (height + TIP.tall) / 2] },
  { of: '', from: [width - BUTTONS.aside, height - BUTTONS.tall], to: [width - BUTTONS.aside, height] },
];

/** Over a picture and under it, from the left to the right, then inside its upper rim; of one that reaches beyond the room, where that begins. */
function placesBeside(
  { min: [left, top], max: [right, bottom] }: Box,
  [width, height]: Vec,
  room: Vec,
): readonly Vec[] {
  const across = [left + width / 2, (left + right) / 2, right - width / 2];
  const rows = [top - height / 2 - GAP, bottom + height / 2 + GAP, top + height / 2];
  const within = (at: number, own: number, all: number) => Math.max(own / 2, Math.min(all - own / 2, at));
  const inside: Vec = [within(across[0]!, width, room[0]), within(rows[2]!, height, room[1])];
  return [...rows.flatMap((y) => across.map((x): Vec => [x, y])), inside];
}

const isOver = ([x, y]: Vec, [width, height]: Vec, { min, max }: Box): boolean =>
  x + width / 2 > min[0] && x - width / 2 < max[0] && y + height / 2 > min[1] && y - height / 2 < max[1];
