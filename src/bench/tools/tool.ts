import type { FittedView } from '@/core/derive';
import { cross, norm, subtract, type Piece, type Vec } from '@/core/geometry';
import type { Command, Job } from '@/core/job';
import { movedByHand, type Chain, type DrawnOutline, type PointedPlace, type Shape } from '@/core/outline';
import type { RelationEnd } from '@/core/relate';
import type { SheetPoint } from '@/core/calibrate';
import type { Hint } from '@/ui/hint-words';
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

/** What is looked at in place of the view that is worked on: a plane with reference geometry, or another view. */
export type Elsewhere = { readonly kind: 'plane' | 'view'; readonly id: string };

/** What a tool asks for. `say` is a code that the interface words. */
export type Effect =
  | { readonly kind: 'run'; readonly command: Command }
  | { readonly kind: 'say'; readonly code: string }
  /** Look at another plane or view, or back at the view that is worked on. */
  | { readonly kind: 'look'; readonly at: Elsewhere | undefined }
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

/** The steps of the work that a tool can belong to. */
export type ToolStep = 'sources' | 'fit' | 'arrange' | 'trace';

/** What a tool shows of what is there, besides its own preview. */
export type Mark =
  /** Evidence in full, but for a piece that is pointed at again. */
  | { readonly kind: 'evidence'; readonly except?: string | undefined }
  /** The whole sheet, with what was cropped away. */
  | { readonly kind: 'whole-sheet' }
  /** Outlines that are chosen; of a single one its nodes and handles. */
  | { readonly kind: 'chosen-outlines'; readonly outlines: readonly string[]; readonly part?: ChosenPart }
  | { readonly kind: 'chosen-ends'; readonly on: readonly RelationEnd[] }
  | { readonly kind: 'openings'; readonly chosen: string | undefined }
  /** Regions, and the one around a place of the view plane. */
  | { readonly kind: 'regions'; readonly at: Vec | undefined }
  /** Shared lines and places in full, the chosen one before all. */
  | { readonly kind: 'shared'; readonly chosen: string | undefined }
  /** Edges that what is set here has to keep from, and where it comes nearest to them. */
  | { readonly kind: 'sited' }
  /** What each of the things is that stand there to judge by eye. */
  | { readonly kind: 'by-eye' }
  /** Curves in space over the outlines that they are of, too. */
  | { readonly kind: 'relations' | 'freedoms' | 'curves' };

/** A node or a place on a segment of a chain. */
export interface ChosenPart {
  readonly node?: string | undefined;
  readonly segment?: { readonly index: number; readonly t: number } | undefined;
}

/** Whether cards are needed (something is asked, whoever put them away), useful, or in the way of what is pointed at. */
export type Cards = 'needed' | 'useful' | 'in the way';

/** What a tool is asked about itself, so that no screen has to know it by name. */
export interface Tool<S> {
  readonly start: S;
  readonly belongsTo: ToolStep;
  /** A step comes back to it when nothing is under way. */
  readonly rests?: boolean;
  /** What it has in hand goes along to another view. */
  readonly goesAlong?: boolean;
  /** Another plane or view may be looked at while it is in hand. */
  readonly looksElsewhere?: boolean;
  /** What it waits for; undefined where its step knows better. */
  hint?(state: S, context: Pick<ToolContext, 'job' | 'fitted'>): Hint | undefined;
  marks?(state: S): readonly Mark[];
  /** Undefined where its step decides. */
  cards?(state: S): Cards | undefined;
  /** Whether a job that is opened goes on with it. */
  isUnderWay?(state: S): boolean;
  /** Whether undoing takes back its last place before anything of the history. */
  takesBack?(state: S): boolean;
  /** The two places that a length is read between while it is set; the aim stands for the second while that is not there. */
  between?(state: S): readonly SheetPoint[];
  /** Where what is being set comes from. View plane. */
  from?(state: S, context: ToolContext): Vec | undefined;
  /** The line that is being drawn, which catches the aim; the outline that it carries on does not. */
  draws?(state: S, context: ToolContext): { readonly line?: Chain | undefined; readonly carries?: string | undefined };
  /** Whether only the picture catches its aim: a place that is to be laid on what exists is sought there. */
  seeksPicture?(state: S): boolean;
  /** Outlines that are chosen with it. */
  chosen?(state: S): readonly string[];
  /** It goes wherever the hand goes: nothing catches its aim. */
  isFree?(state: S): boolean;
  /** The hand draws with it: it works from where it is pressed to where it is lifted. */
  readonly paints?: boolean;
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
