import type { SheetPoint } from '../calibrate';
import { distance, type Vec } from '../geometry';
import type { Evidence, EvidencePoint } from './evidence';

/** A place of a view (sheet px), and where it lies on the plane that the view is laid on (mm, one sigma). */
export interface MatchedPlace {
  readonly id: string;
  readonly from: SheetPoint;
  readonly to: { readonly at: Vec; readonly sigma: number };
}

/** How well the end of a drawn line is known: as good as drawn. mm. */
export const AS_DRAWN = 0.005;
/** What was drawn or photographed lies where the other has it to about this share of the way between the first two places, two sigma: assumed, and said on the cards. */
const ROUGH = 0.01;

/**
 * Places that are matched to existing geometry, as known points: each as well as it is known there, but never better than one thing fits another. `places` are all that
 * were matched, at least two; evidence is made of those after the first `laid`, which are in the job already.
 */
export function matchedEvidence(
  places: readonly MatchedPlace[],
  laid = 0,
): { readonly evidence: readonly Evidence[]; readonly points: readonly EvidencePoint[] } {
  const rough = ROUGH * distance(places[0]!.to.at, places[1]!.to.at);
  const fresh = places.slice(laid);
  return {
    evidence: fresh.map((place, i) => pieceOf(place, laid + i + 1, rough)),
    points: fresh.map(pointOf),
  };
}

const written = (mm: number) => `${Number(mm.toFixed(3))} mm`;

function pieceOf({ id, to: { at, sigma } }: MatchedPlace, number: number, rough: number): Evidence {
  return {
    id,
    kind: 'known-point',
    groups: [[`${id}-at`]],
    said: { across: { value: at[0], written: written(at[0]) }, up: { value: at[1], written: written(at[1]) } },
    plusMinus: Number(Math.max(2 * sigma, rough).toPrecision(3)),
    guess: false,
    role: 'use',
    name: `matched place ${number}`,
  };
}

const pointOf = ({ id, from }: MatchedPlace): EvidencePoint => ({
  id: `${id}-at`,
  at: from.at,
  sigma: from.sigma,
  ...(from.edge ? { edge: from.edge } : {}),
});
