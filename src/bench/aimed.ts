import type { Derived } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import type { LoadedReference } from '@/store';
import type { Hand } from '@/core/calibrate';
import { aimAt, aimZoom, pointingSigma, turnAfter, type Aim, type AimOptions } from './aim';
import type { PictureEdges } from './edges';
import type { SessionState } from './session-state';
import { snapSearch } from './snap-targets';
import { toolOf, type ToolContext } from './tools';
import { middleOfBench, toScreen, sheetUnder } from './viewport';

/** Reference geometry is looked for this far around the aim. CSS px. */
const REFERENCE_REACH = 24;
const NOTHING_NEAR = () => [];

/** Where somebody points, on the bench (CSS px) and on the sheet, how, and at what zoom: the picture may have been moved since. */
export interface Aimed extends Required<Hand> {
  readonly screen: Vec;
  readonly sheet: Vec;
  readonly zoom: number;
}

/** All that an aim is told by. */
interface Around {
  readonly context: ToolContext;
  readonly derived: Derived;
  readonly session: SessionState;
  readonly references: readonly LoadedReference[];
  /** Of the picture, where it is at hand. */
  readonly edges: PictureEdges | undefined;
}

/** Whether anything catches the aim now. */
export function isCatching({ snapping, tool }: SessionState): boolean {
  return snapping && !toolOf(tool).isFree?.(tool.state);
}

/** What is meant by where somebody points; `turn` of several things that could be meant there. */
export function aimIn(aimed: Aimed, turn: number, around: Around): Aim {
  return aimAt(aimed.sheet, optionsOf(aimed, turn, around));
}

/** The turn of what could be meant after what an aim was caught by. */
export function turnAfterIn(aim: Aim, aimed: Aimed, turn: number, around: Around): number {
  return turnAfter(aim, aimed.sheet, optionsOf(aimed, turn, around));
}

function optionsOf({ sheet, zoom, pointer, unaided }: Aimed, turn: number, around: Around): AimOptions {
  const { context, derived, session, references, edges } = around;
  const { tool, catching, grid } = session;
  const snapping = isCatching(session);
  const { seeksPicture, from } = toolOf(tool);
  const near = seeksPicture?.(tool.state) ? undefined : { references, at: sheet, reach: REFERENCE_REACH / zoom };
  return {
    fit: context.fitted.fit,
    zoom,
    pointer,
    unaided,
    snapping,
    search: snapping ? snapSearch(context, derived, tool, near) : NOTHING_NEAR,
    findEdge: (at, reach, hand) => edges?.find(at, reach, hand),
    findCorner: (at, reach, hand) => edges?.findCorner(at, reach, hand),
    from: from?.(tool.state, context),
    kinds: catching,
    grid,
    turn,
  };
}

/** From where and to where on the sheet a nudge moves, by pixels of what is looked at, and how surely. */
export function nudgedBy([dx, dy]: Vec, { viewport, aim, pointer }: SessionState) {
  const step = pointer === 'touch' ? viewport.zoom / aimZoom(viewport.zoom) : 1;
  const from = aim?.sheet ?? sheetUnder(viewport, middleOfBench(viewport));
  const [x, y] = toScreen(viewport, from);
  const sheet = sheetUnder(viewport, [x + dx * step, y + dy * step]);
  return { from, sheet, sigma: pointingSigma({ pointer }, viewport.zoom) };
}
