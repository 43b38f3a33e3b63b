import type { FittedView } from '@/core/derive';
import { cross, norm, subtract, type Piece, type Vec } from '@/core/geometry';
import type { Command, Job } from '@/core/job';
import { movedByHand, type DrawnOutline, type PointedPlace, type Shape } from '@/core/outline';
import type { Aim } from '../aim';
import type { Found } from '../edges';

/** What a tool may know. Tools are pure: (state, input) → [state, effects]; the same file serves touch, mouse, pen and tests. */
export interface ToolContext {
  readonly job: Job;
  readonly fitted: FittedView;
  readonly layer: string;
  /** Where every outline is, relations and all. */
  readonly shapes: ReadonlyMap<string, Shape>;
  newId(): string;
}

export type ToolInput =
  /** `seek`: the picture may be searched around the place for what the tool needs. */
  | { readonly kind: 'set'; readonly aim: Aim; readonly seek?: boolean }
  /** What a search of the picture has found. */
  | { readonly kind: 'found'; readonly points: Found }
  /** Nothing was found around the place that was tapped. */
  | { readonly kind: 'not-found' }
  /** The picture may offer what the tool needs; again: the next of it. */
  | { readonly kind: 'propose' }
  /** A typed size, mm and radians, on its way from the last point; `aim` gives the direction that was not typed. */
  | {
      readonly kind: 'typed';
      readonly length?: number | undefined;
      readonly lengths?: readonly number[] | undefined;
      readonly angle?: number | undefined;
      readonly at?: { readonly by: Vec; readonly from: 'last' | 'zero' } | undefined;
      readonly aim: Aim | undefined;
    }
  /** What was set last moves; `sigma` is how well it is pointed at now. Sheet px. */
  | { readonly kind: 'nudge'; readonly by: Vec; readonly sigma: number }
  | { readonly kind: 'grab' | 'drag' | 'drop'; readonly aim: Aim; readonly reach: number }
  /** `release` lets go of what was grabbed and not moved. */
  /** `another`: what lies under what was chosen. */
  | { readonly kind: 'back' | 'another' | 'finish' | 'close' | 'cancel' | 'release' };

export type Nudge = Extract<ToolInput, { kind: 'nudge' }>;

/** What a tool asks for. `say` is a code that the interface words. */
export type Effect =
  | { readonly kind: 'run'; readonly command: Command }
  | { readonly kind: 'say'; readonly code: string }
  /** Look at the view that is worked on, or at what it is matched to. */
  | { readonly kind: 'look'; readonly at: 'view' | 'target' }
  /** Point a piece of evidence out, or none. */
  | { readonly kind: 'choose'; readonly evidence: string | undefined }
  /** Choose outlines, with the tool for that in hand. */
  | { readonly kind: 'hold'; readonly outlines: readonly string[] }
  /** Search the picture around a sheet place; the answer comes as an input, or `otherwise` is said. */
  | {
      readonly kind: 'seek';
      readonly what: 'rim' | 'sides' | 'straight' | 'next-straight';
      readonly near: Vec;
      readonly otherwise: string;
      readonly proportion?: number | undefined;
    };

export type Step<S> = readonly [S, readonly Effect[]];

/** What is drawn of a tool's state before it is in the job. Sheet px. */
export interface Preview {
  readonly outlines: readonly DrawnOutline[];
  /** What would come about besides, or what would go: pieces on the view plane. */
  readonly pieces?: { readonly list: readonly Piece[]; readonly look: 'comes' | 'goes' } | undefined;
  readonly points: readonly Vec[];
  /** Lines through what was pointed at, as far as they go. */
  readonly lines?: readonly (readonly Vec[])[] | undefined;
  /** A stroke of the brush, sheet px. */
  readonly brush?:
    { readonly path: readonly Vec[]; readonly radius: number; readonly does: 'rub' | 'fill' } | undefined;
  readonly span?:
    { readonly from: Vec; readonly to: Vec; readonly look: 'evidence' | 'check' | 'measure' | 'datum' } | undefined;
}

export interface Tool<S> {
  readonly start: S;
  /** It goes wherever the hand goes: nothing catches its aim. */
  readonly isFree?: boolean;
  /** It chooses among what is there: `another` goes on to what lies under it. */
  readonly picks?: boolean;
  /** It has to do with how a picture is seen, and measures nothing. */
  readonly looks?: boolean;
  /** Whether what it does changes the fit, the axes or the picture of the view: then it is not taken in hand over one that is locked. */
  places?(state: S): boolean;
  /** Whether pointing has set nothing that could be nudged: it chose something, or did its work. */
  setsNoPoint?(state: S): boolean;
  step(state: S, input: ToolInput, context: ToolContext): Step<S>;
  preview(state: S, aim: Aim | undefined, context: ToolContext): Preview;
}

export const NOTHING: Preview = { outlines: [], points: [] };

export const say = (code: string): Effect => ({ kind: 'say', code });
export const run = (command: Command): Effect => ({ kind: 'run', command });
export const stay = <S>(state: S, ...effects: Effect[]): Step<S> => [state, effects];

export function pointed({ sheet, sigma, edge }: Pick<Aim, 'sheet' | 'sigma' | 'edge'>): PointedPlace {
  return { kind: 'pointed', at: sheet, sigma, ...(edge ? { edge } : {}) };
}

/** What the hand does between two places that it sets: moves the last one, takes it back, lets go of all. */
export function betweenPlaces<S extends { readonly points: readonly PointedPlace[] }>(state: S, input: ToolInput): S {
  const { points } = state;
  if (input.kind === 'nudge')
    return {
      ...state,
      points: points.map((point, i) => (i === points.length - 1 ? movedByHand(point, input.by, input.sigma) : point)),
    };
  if (input.kind === 'back') return { ...state, points: points.slice(0, -1) };
  return input.kind === 'cancel' ? { ...state, points: [] } : state;
}

/** Three places on the sheet that lie in a line as far as a hand can tell: the middle one is off the chord by less than its sigma. */
export function isInLine(a: Vec, through: PointedPlace, b: Vec): boolean {
  const chord = subtract(b, a);
  const length = norm(chord);
  return length === 0 || Math.abs(cross(chord, subtract(through.at, a))) / length < through.sigma;
}

export function toSheetPlace(fitted: FittedView, plane: Vec): Vec {
  return fitted.fit.toSheet(plane);
}
