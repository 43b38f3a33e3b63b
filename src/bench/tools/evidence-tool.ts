import { distance, type Vec } from '@/core/geometry';
import {
  addEvidence,
  pointAgain,
  type Command,
  type Evidence,
  type EvidenceKind,
  type EvidencePoint,
  type SaidName,
  type View,
} from '@/core/job';
import { isOnEdge } from '@/core/raster';
import { parseLength } from '@/core/units';
import { movedByHand, type PictureEdge } from '@/core/outline';
import type { Hint } from '@/ui/hint-words';
import type { Aim } from '../aim';
import { pointingGroups, isEnough, isFull, type PointingWay } from './evidence-kinds';
import { NOTHING, say, stay, type Preview, type Step, type Tool, type ToolContext, type ToolInput } from './tool';

interface Pointing {
  readonly at: Vec;
  readonly sigma: number;
  readonly edge?: PictureEdge | undefined;
}

/** A place of the piece that is being pointed at; one that the view has already keeps its id and is shared. */
export interface PointedEvidence extends Pointing {
  readonly id: string | undefined;
  /** Where the hand was when a place that the view has already was meant. */
  readonly meant?: Pointing | undefined;
}

/** A piece of evidence on its way: its kind, whether it is held back as a check, and the points so far. */
export interface EvidenceState {
  readonly kind: EvidenceKind;
  readonly role: 'use' | 'check';
  /** A rectangle that is pointed at by what it touches. */
  readonly way?: 'box' | undefined;
  /** What it is and what it says, when it was taken from the shelf. */
  readonly name: string | undefined;
  readonly written: Partial<Record<SaidName, string>>;
  readonly plusMinus: number | undefined;
  /** How high above the plane of the fit it is seen, mm, where that is known. */
  readonly height?: number | undefined;
  readonly points: readonly PointedEvidence[];
  /** Which of the points was set last: nudging moves it. */
  readonly last: number;
  /** The piece whose points are being pointed at once more. */
  readonly again?: string | undefined;
  /** All of them were found in the picture: what is left is to say what it is. */
  readonly found?: true | undefined;
  /** What was found was not wanted: nothing is looked for. */
  readonly byHand?: true | undefined;
}

export const wayOf = ({ kind, way }: Pick<EvidenceState, 'kind' | 'way'>): PointingWay => way ?? kind;

const START: EvidenceState = {
  kind: 'length',
  role: 'use',
  name: undefined,
  written: {},
  plusMinus: undefined,
  points: [],
  last: 0,
};

export function startEvidence(
  kind: EvidenceKind,
  role: 'use' | 'check',
  from: Partial<EvidenceState> = {},
): EvidenceState {
  return { ...START, ...from, kind, role };
}

/** A place this many of its own sigmas from a known point is that point. */
const SAME_POINT = 4;

const pointingAt = ({ sheet, sigma, edge }: Aim): Pointing => ({ at: sheet, sigma, ...(edge ? { edge } : {}) });

function pointAt(aim: Aim, view: View): PointedEvidence {
  const known = view.points.find((point) => distance(point.at, aim.sheet) < SAME_POINT * aim.sigma);
  return known
    ? { id: known.id, at: known.at, sigma: known.sigma, meant: pointingAt(aim) }
    : { id: undefined, ...pointingAt(aim) };
}

/** Sets the next place; once all are there a further one moves whichever is nearest. */
function setPoint(state: EvidenceState, aim: Aim, view: View): EvidenceState {
  const point = pointAt(aim, view);
  const { points } = state;
  if (!isFull(wayOf(state), points.length)) return { ...state, points: [...points, point], last: points.length };
  const last = points.reduce(
    (best, other, i) => (distance(other.at, aim.sheet) < distance(points[best]!.at, aim.sheet) ? i : best),
    0,
  );
  return { ...state, points: points.with(last, point), last };
}

/** A place this many sigmas from every point of the piece is none of them. */
const SAME_PLACE = 12;

/** Which point of a piece somebody meant; undefined when none is near. */
function findMeant({ at, sigma }: Pointing, piece: Evidence | undefined, view: View): EvidencePoint | undefined {
  const near = view.points.filter(
    (point) =>
      piece?.groups.flat().includes(point.id) && distance(point.at, at) < SAME_PLACE * Math.hypot(sigma, point.sigma),
  );
  return near.sort((a, b) => distance(a.at, at) - distance(b.at, at))[0];
}

/** Points once more at whichever point of the piece is nearest. */
function setAgain(state: EvidenceState, aim: Aim, view: View): EvidenceState | undefined {
  const pointing = pointingAt(aim);
  const meant = findMeant(
    pointing,
    view.evidence.find(({ id }) => id === state.again),
    view,
  );
  if (!meant) return undefined;
  const before = state.points.findIndex(({ id }) => id === meant.id);
  const last = before < 0 ? state.points.length : before;
  return { ...state, points: state.points.toSpliced(last, 1, { id: meant.id, ...pointing }), last };
}

/** What one tap can find of a thing: inside of it, or on the edge itself. */
const SOUGHT: Partial<
  Record<EvidenceKind, { what: 'rim' | 'sides' | 'straight'; on: 'inside' | 'edge'; otherwise: string }>
> = {
  circle: { what: 'rim', on: 'inside', otherwise: 'rim-not-found' },
  rectangle: { what: 'sides', on: 'inside', otherwise: 'sides-not-found' },
  straight: { what: 'straight', on: 'edge', otherwise: 'straight-not-found' },
};

/** Whether a straight edge is among what is known of a view. */
export function isKnownStraight({ evidence, points }: View, along: readonly { readonly at: Vec }[]): boolean {
  const middle = along[along.length >> 1]!.at;
  return evidence.some(
    ({ kind, groups }) =>
      kind === 'straight' &&
      isOnEdge(
        middle,
        groups.flat().flatMap((id) => points.find((point) => point.id === id) ?? []),
      ),
  );
}

/** Width over height, as the shelf says them; undefined while they are not known. */
function proportionOf({ width, height }: EvidenceState['written']): number | undefined {
  const [w, h] = [width, height].map((written) => (written === undefined ? undefined : parseLength(written, 'mm')));
  return w?.ok && h?.ok ? w.value.mm / h.value.mm : undefined;
}

type Input<K extends ToolInput['kind']> = Extract<ToolInput, { kind: K }>;

/** A place that was pointed at; the first of a thing whose edges can be found has them looked for. */
function stepSet(state: EvidenceState, input: Input<'set'>, { fitted }: ToolContext): Step<EvidenceState> {
  const next =
    state.again === undefined ? setPoint(state, input.aim, fitted.view) : setAgain(state, input.aim, fitted.view);
  if (!next) return stay(state, say('pointed-elsewhere'));
  const set = next.points[next.last]!;
  const twice = next.points.some((other, i) => i !== next.last && distance(other.at, set.at) < 2);
  if (twice) return stay(state, say('points-the-same'));
  const mayFind =
    input.seek && !state.byHand && state.again === undefined && state.way === undefined && next.points.length === 1;
  const sought = mayFind ? SOUGHT[state.kind] : undefined;
  if (!sought || (sought.on === 'edge') !== (set.edge !== undefined)) return [next, []];
  return [
    next,
    [
      {
        kind: 'seek',
        what: sought.what,
        near: set.at,
        otherwise: sought.otherwise,
        proportion: proportionOf(state.written),
      },
    ],
  ];
}

function stepNudge(state: EvidenceState, input: Input<'nudge'>): Step<EvidenceState> {
  const moved = state.points[state.last];
  if (!moved) return [state, []];
  return [
    {
      ...state,
      points: state.points.with(state.last, {
        ...movedByHand(moved, input.by, input.sigma),
        id: state.again === undefined ? undefined : moved.id,
      }),
    },
    [],
  ];
}

function step(state: EvidenceState, input: ToolInput, context: ToolContext): Step<EvidenceState> {
  switch (input.kind) {
    case 'set':
      return stepSet(state, input, context);
    case 'propose':
      if (state.kind !== 'straight') return [state, []];
      return [
        { ...state, points: [], last: 0, found: undefined },
        [
          {
            kind: 'seek',
            what: 'next-straight',
            near: [context.fitted.sheet.width / 2, context.fitted.sheet.height / 2],
            otherwise: 'no-straight-left',
          },
        ],
      ];
    case 'found':
      return [
        { ...state, points: input.points.map((point) => ({ id: undefined, ...point })), last: 0, found: true },
        [],
      ];
    case 'not-found':
      // A tap in the middle of a thing is no place on its rim; one that an edge caught may be meant as its first.
      return [state.points.length === 1 && !state.points[0]!.edge ? { ...state, points: [], last: 0 } : state, []];
    case 'nudge':
      return stepNudge(state, input);
    case 'back':
      // What was found by one tap goes as it came, and is pointed at by hand instead.
      if (state.found) return [{ ...state, points: [], last: 0, found: undefined, byHand: true }, []];
      return [{ ...state, points: state.points.slice(0, -1), last: Math.max(0, state.points.length - 2) }, []];
    case 'cancel':
      return [startEvidence(state.kind, state.role, { way: state.way }), []];
    default:
      return [state, []];
  }
}

function preview(state: EvidenceState, aim: Aim | undefined): Preview {
  const { kind, role, points, found } = state;
  if (points.length === 0) return NOTHING;
  const places = points.map(({ at }) => at);
  if (kind === 'length') {
    const to = places[1] ?? aim?.sheet;
    return {
      outlines: [],
      points: places,
      span: to && { from: places[0]!, to, look: role === 'check' ? 'check' : 'evidence' },
    };
  }
  const shown =
    found && kind === 'circle'
      ? [...places, places[0]!]
      : aim && !found && !isFull(wayOf(state), places.length)
        ? [...places, aim.sheet]
        : places;
  // What was found is shown by its lines: its many places would hide it.
  return { outlines: [], points: found ? [] : places, lines: pointingGroups(wayOf(state), shown) };
}

/** Nothing is left to point at: the sizes are asked for. */
export const isPointed = (state: EvidenceState) => state.found === true || isFull(wayOf(state), state.points.length);

function hintOf(state: EvidenceState): Hint {
  const [way, at] = [wayOf(state), state.points.length];
  if (state.again !== undefined) return { code: isEnough(way, at) ? 'evidence-average' : 'evidence-again' };
  return { code: state.role === 'check' && way === 'length' ? 'evidence-check' : `evidence-${way}`, at };
}

export const evidenceTool: Tool<EvidenceState> = {
  belongsTo: 'fit',
  hint: hintOf,
  marks: ({ again }) => [{ kind: 'evidence', except: again }],
  cards: (state) => (isPointed(state) ? 'needed' : undefined),
  isUnderWay: () => true,
  between: ({ points }) => points,
  places: () => true,
  start: START,
  step,
  preview,
};

/** What was said about a piece, as its fields read it. mm or degrees; plus-minus two sigma. */
export interface SaidSizes {
  readonly sizes: Evidence['said'];
  readonly plusMinus: number | undefined;
  readonly guess: boolean;
}

/** The command that puts a pointed piece with its sizes into the job; undefined while nothing is pointed. */
export function commandForEvidence(
  state: EvidenceState,
  { sizes, plusMinus, guess }: SaidSizes,
  { fitted, newId }: ToolContext,
): Command | undefined {
  if (state.points.length === 0) return undefined;
  const again = pointingsAgain(state, sizes, fitted.view);
  if (again) return pointAgain(fitted.view.id, again);
  const points: EvidencePoint[] = state.points.map(({ id, at, sigma, edge }) => ({
    id: id ?? newId(),
    at,
    sigma,
    ...(edge ? { edge } : {}),
    ...(state.height === undefined ? {} : { height: state.height }),
  }));
  const evidence: Evidence = {
    id: newId(),
    kind: state.kind,
    groups: pointingGroups(
      wayOf(state),
      points.map(({ id }) => id),
    ),
    said: sizes,
    guess,
    role: state.role,
    ...(plusMinus === undefined ? {} : { plusMinus }),
    ...(state.name === undefined ? {} : { name: state.name }),
  };
  return addEvidence(fitted.view.id, evidence, points);
}

/** The points of a piece that says the same of the same places, as they were pointed at now: said twice it would count twice. */
function pointingsAgain(
  { kind, role, points, found }: EvidenceState,
  sizes: Evidence['said'],
  view: View,
): readonly EvidencePoint[] | undefined {
  const says = (said: Evidence['said']) =>
    Object.entries(said)
      .map(([name, size]) => `${name} ${size!.value}`)
      .join();
  for (const piece of found
    ? []
    : view.evidence.filter((other) => other.kind === kind && other.role === role && says(other.said) === says(sizes))) {
    const pointings = points.map((point) => point.meant ?? point);
    const meant = pointings.map((pointing) => findMeant(pointing, piece, view)?.id);
    const isSame =
      new Set(meant).size === piece.groups.flat().length &&
      meant.length === piece.groups.flat().length &&
      meant.every((id) => id !== undefined);
    if (isSame)
      return pointings.map(({ at, sigma, edge }, i) => ({ id: meant[i]!, at, sigma, ...(edge ? { edge } : {}) }));
  }
  return undefined;
}

/** The command that adds what was pointed at again; undefined before the whole piece was. */
export function commandForAgain(state: EvidenceState, { fitted }: ToolContext): Command | undefined {
  if (!isFull(wayOf(state), state.points.length)) return undefined;
  return pointAgain(
    fitted.view.id,
    state.points.map(({ id, at, sigma, edge }) => ({ id: id!, at, sigma, ...(edge ? { edge } : {}) })),
  );
}
