import { distance, type Vec } from '@/core/geometry';
import { addEvidence, type Command, type Evidence, type EvidenceKind, type EvidencePoint, type SaidName, type View } from '@/core/job';
import { movedByHand, type PictureEdge } from '@/core/outline';
import type { Aim } from '../aim';
import { groupsOf, isFull } from './evidence-kinds';
import { NOTHING, say, stay, type Preview, type Step, type Tool, type ToolContext, type ToolInput } from './tool';

/** A place of the piece that is being pointed at; one that the view has already keeps its id and is shared. */
export interface PointedEvidence {
  readonly id: string | undefined;
  readonly at: Vec;
  readonly sigma: number;
  readonly edge?: PictureEdge | undefined;
}

/** A piece of evidence on its way: its kind, whether it is held back as a check, and the points so far. */
export interface EvidenceState {
  readonly kind: EvidenceKind;
  readonly role: 'use' | 'check';
  /** What it is and what it says, when it was taken from the shelf. */
  readonly name: string | undefined;
  readonly written: Partial<Record<SaidName, string>>;
  readonly plusMinus: number | undefined;
  readonly points: readonly PointedEvidence[];
  /** Which of the points was set last: nudging moves it. */
  readonly last: number;
  /** All of them were found in the picture: what is left is to say what it is. */
  readonly found?: true | undefined;
}

const START: EvidenceState = { kind: 'length', role: 'use', name: undefined, written: {}, plusMinus: undefined, points: [], last: 0 };

export function startEvidence(kind: EvidenceKind, role: 'use' | 'check', from: Partial<EvidenceState> = {}): EvidenceState {
  return { ...START, ...from, kind, role };
}

/** A place this many of its own sigmas from a known point is that point. */
const SAME_POINT = 4;

function pointAt({ sheet, sigma, edge }: Aim, view: View): PointedEvidence {
  const known = view.points.find((point) => distance(point.at, sheet) < SAME_POINT * sigma);
  return known ? known : { id: undefined, at: sheet, sigma, ...(edge ? { edge } : {}) };
}

/** Sets the next place; once all are there a further one moves whichever is nearest. */
function setPoint(state: EvidenceState, aim: Aim, view: View): EvidenceState {
  const point = pointAt(aim, view);
  const { points, kind } = state;
  if (!isFull(kind, points.length)) return { ...state, points: [...points, point], last: points.length };
  const last = points.reduce((best, other, i) => (distance(other.at, aim.sheet) < distance(points[best]!.at, aim.sheet) ? i : best), 0);
  return { ...state, points: points.with(last, point), last };
}

/** What one tap inside a thing can find of it. */
const SOUGHT: Partial<Record<EvidenceKind, { what: 'rim' | 'sides'; otherwise: string }>> = {
  circle: { what: 'rim', otherwise: 'rim-not-found' }, rectangle: { what: 'sides', otherwise: 'sides-not-found' },
};

function step(state: EvidenceState, input: ToolInput, { fitted }: ToolContext): Step<EvidenceState> {
  switch (input.kind) {
    case 'set': {
      const next = setPoint(state, input.aim, fitted.view);
      const set = next.points[next.last]!;
      const twice = next.points.some((other, i) => i !== next.last && distance(other.at, set.at) < 2);
      if (twice) return stay(state, say('points-the-same'));
      const sought = input.seek && next.points.length === 1 ? SOUGHT[state.kind] : undefined;
      return [next, sought ? [{ kind: 'seek', near: set.at, ...sought }] : []];
    }
    case 'found':
      return [{ ...state, points: input.points.map((point) => ({ id: undefined, ...point })), last: 0, found: true }, []];
    case 'nudge': {
      const moved = state.points[state.last];
      if (!moved) return [state, []];
      return [{ ...state, points: state.points.with(state.last, { ...movedByHand(moved, input.by), id: undefined }) }, []];
    }
    case 'back':
      return [{ ...state, points: state.points.slice(0, -1), last: Math.max(0, state.points.length - 2) }, []];
    case 'cancel':
      return [startEvidence(state.kind, state.role), []];
    default:
      return [state, []];
  }
}

function preview({ kind, role, points, found }: EvidenceState, aim: Aim | undefined): Preview {
  if (points.length === 0) return NOTHING;
  const places = points.map(({ at }) => at);
  if (kind === 'length') {
    const to = places[1] ?? aim?.sheet;
    return { outlines: [], points: places, span: to && { from: places[0]!, to, look: role === 'check' ? 'check' : 'evidence' } };
  }
  const shown = found && kind === 'circle' ? [...places, places[0]!] : aim && !found && !isFull(kind, places.length) ? [...places, aim.sheet] : places;
  return { outlines: [], points: places, lines: groupsOf(kind, shown) };
}

/** Nothing is left to point at: the sizes are asked for. */
export const isPointed = ({ kind, points, found }: EvidenceState) => found === true || isFull(kind, points.length);

export const evidenceTool: Tool<EvidenceState> = { start: START, step, preview };

/** What was said about a piece, as its fields read it. mm or degrees; plus-minus two sigma. */
export interface SaidSizes {
  readonly sizes: Evidence['said'];
  readonly plusMinus: number | undefined;
  readonly guess: boolean;
}

/** The command that puts a pointed piece with its sizes into the job; undefined while nothing is pointed. */
export function commandForEvidence(state: EvidenceState, { sizes, plusMinus, guess }: SaidSizes, { fitted, newId }: ToolContext): Command | undefined {
  if (state.points.length === 0) return undefined;
  const points: EvidencePoint[] = state.points.map(({ id, at, sigma, edge }) => ({ id: id ?? newId(), at, sigma, ...(edge ? { edge } : {}) }));
  const evidence: Evidence = {
    id: newId(), kind: state.kind, groups: groupsOf(state.kind, points.map(({ id }) => id)), said: sizes, guess, role: state.role,
    ...(plusMinus === undefined ? {} : { plusMinus }), ...(state.name === undefined ? {} : { name: state.name }),
  };
  return addEvidence(fitted.view.id, evidence, points);
}
