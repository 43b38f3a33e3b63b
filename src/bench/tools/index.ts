import { brushTool } from './brush-tool';
import { byEyeTool } from './by-eye-tool';
import { chainTool } from './chain-tool';
import { circleTool } from './circle-tool';
import { cutTool } from './cut-tool';
import { guideTool } from './guide-tool';
import { dimensionTool } from './dimension-tool';
import { evidenceTool } from './evidence-tool';
import { frameTool } from './frame-tool';
import { matchTool } from './match-tool';
import { angleTool, datumTool, distanceTool, levelTool } from './span-tool';
import { openingTool } from './opening-tool';
import { pointsTool } from './points-tool';
import { regionTool } from './region-tool';
import { relateTool } from './relate-tool';
import { shapeTool } from './shape-tool';
import { shareTool } from './share-tool';
import { selectTool } from './select-tool';
import { siteTool } from './site-tool';
import { spaceCurveTool } from './space-curve-tool';
import { standOnTool } from './stand-on-tool';
import { standTool } from './stand-tool';
import type { Tool, ToolContext } from './tool';

/** All tools by name. The name is stored with the draft. */
export const TOOLS = {
  select: selectTool,
  chain: chainTool,
  circle: circleTool,
  cut: cutTool,
  opening: openingTool,
  dimension: dimensionTool,
  region: regionTool,
  stand: standTool,
  guide: guideTool,
  evidence: evidenceTool,
  points: pointsTool,
  byEye: byEyeTool,
  datum: datumTool,
  level: levelTool,
  frame: frameTool,
  match: matchTool,
  relate: relateTool,
  share: shareTool,
  spaceCurve: spaceCurveTool,
  standOn: standOnTool,
  site: siteTool,
  shape: shapeTool,
  brush: brushTool,
  distance: distanceTool,
  angle: angleTool,
} as const;

export type ToolName = keyof typeof TOOLS;
type StateOf<N extends ToolName> = (typeof TOOLS)[N] extends Tool<infer S> ? S : never;
/** A tool with its state. */
export type ActiveTool = { [N in ToolName]: { readonly name: N; readonly state: StateOf<N> } }[ToolName];

/** The tool as one that takes any state: name and state belong together by construction of `ActiveTool`. */
export function toolOf(active: ActiveTool): Tool<ActiveTool['state']> {
  return TOOLS[active.name] as unknown as Tool<ActiveTool['state']>;
}

/** Whether a tool has something in hand that follows the pointer. */
export const holdsSomething = ({ state }: ActiveTool) => 'grabbed' in state && state.grabbed !== undefined;

export function startTool(name: ToolName): ActiveTool {
  return { name, state: TOOLS[name].start } as ActiveTool;
}

/** Whether a tool that was stored has the shape of one: a name that is known, and everything that its state begins with. */
export function isToolLike(stored: unknown): stored is ActiveTool {
  const { name, state } = (stored ?? {}) as { readonly name?: string; readonly state?: unknown };
  if (name === undefined || !Object.hasOwn(TOOLS, name) || typeof state !== 'object' || state === null) return false;
  const kindOf = (value: unknown) => (Array.isArray(value) ? 'list' : typeof value);
  return Object.entries(TOOLS[name as ToolName].start).every(
    ([key, first]) => first === undefined || kindOf((state as Record<string, unknown>)[key]) === kindOf(first),
  );
}

export { lookedFromIn, type ByEyeState } from './by-eye-tool';
export type { ArcBy, ChainState } from './chain-state';
export type { CircleMode, CircleState } from './circle-tool';
export type { GuideMode, GuideState } from './guide-tool';
export { EVIDENCE_POINTING, isEnough, isOpenEnded, type PointingWay } from './evidence-kinds';
export {
  commandForAgain,
  isKnownStraight,
  commandForEvidence,
  startEvidence,
  wayOf,
  type EvidenceState,
  type SaidSizes,
} from './evidence-tool';
export { findFrame, startFrame, type FrameShape, type FrameState } from './frame-tool';
export { startBrush, type BrushState } from './brush-tool';
export { startMatch, type MatchPair, type MatchState } from './match-tool';
export type { RegionState } from './region-tool';
export type { ShareState } from './share-tool';
export type { SiteSaying, SiteState } from './site-tool';
export { asKind, type OpeningState } from './opening-tool';
export { FIRST_WALL, type Wall } from './wall';
export { type RelateState } from './relate-tool';
export { commandForRectangle, commandForSlot, type ShapeMode, type ShapeState } from './shape-tool';
export { directionFor, type SpanState } from './span-tool';
export type { PointsState } from './points-tool';
export type { DimensionState } from './dimension-tool';
export type { CutMode, CutState } from './cut-tool';
export { commandForStretch, commandForTurn, type StandMode, type StandState } from './stand-tool';
export { listHandles } from './pick';
export { findSelectedChain, type SelectState } from './select-tool';
export type { Cards, ChosenPart, Effect, Elsewhere, Mark, Preview, ToolContext, ToolInput, ToolStep } from './tool';

/** What was in hand when a sitting ended may speak of something that is not there, or be damaged: then it is let go. */
export function canBeShown(tool: ActiveTool, context: ToolContext | undefined): boolean {
  try {
    if (context) toolOf(tool).preview(tool.state, undefined, context);
    return true;
  } catch {
    return false;
  }
}
