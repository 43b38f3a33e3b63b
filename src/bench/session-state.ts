import type { Pointer } from '@/core/calibrate';
import { tellsAlong } from '@/core/arrange';
import { facingOf, type Folding } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import type { Job } from '@/core/job';
import { SNAP_KINDS, type SnapKind } from '@/core/outline';
import type { Aim } from './aim';
import { isToolLike, startTool, type ActiveTool, type Elsewhere } from './tools';
import type { Viewport } from './viewport';

/** What was said to the user last, and when (ms): the same words twice are two notices. */
export interface Notice {
  readonly code: string;
  readonly detail: Readonly<Record<string, string | number>>;
  readonly at: number;
}

/** Everything about one sitting at the bench that is not in the job: where one looks, what one points at, the tool in hand. */
export interface SessionState {
  readonly viewId: string | undefined;
  /** What is looked at in its stead for a moment: another view, or a plane without a picture. */
  readonly elsewhere: Elsewhere | undefined;
  readonly viewport: Viewport;
  /** Where one looked before the picture last went of its own accord: it is shown on its way from there. */
  readonly slidFrom: Viewport | undefined;
  readonly tool: ActiveTool;
  readonly aim: Aim | undefined;
  readonly pointer: Pointer;
  /** Where the magnified patch stands on the bench; undefined hides it. */
  readonly patch: Vec | undefined;
  /** A point was just set and can be nudged. */
  readonly nudging: boolean;
  readonly snapping: boolean;
  /** What the aim is caught by: all of it where nothing is left out. */
  readonly catching: readonly Catch[];
  /** Steps of a grid on the view plane, mm; undefined without one. */
  readonly grid: number | undefined;
  /** Which of several catches within reach is meant. */
  readonly turn: number;
  readonly magnifier: boolean;
  /** Whether readings of the caliper are listened to. */
  readonly caliper: boolean;
  /** Whether the accuracy map lies over the picture. */
  readonly accuracy: boolean;
  /** Whether other views of the same plane lie under it, faded. */
  readonly others: boolean;
  /** How all views are looked at together, laid out or folded up, in place of the one; undefined: they are not. */
  readonly folding: Folding | undefined;
  /** Whether the picture lies squared up by its fit, and how much of it as it was taken shows through, 0 to 1. */
  readonly straight: boolean;
  readonly ghost: number;
  /** How far a cleaning is, 0 to 1; undefined at rest. */
  readonly cleaning: number | undefined;
  /** Frames around drawings that were found on the sheet. Sheet px. */
  readonly suggested: readonly (readonly Vec[])[];
  /** Whether the measurement that would help most is shown, as a dotted dimension. */
  readonly advises: boolean;
  /** The piece of evidence whose card and marks are pointed out. */
  readonly evidence: string | undefined;
  readonly layer: string;
  readonly notice: Notice | undefined;
  /** A place that is pointed out (a finding of the check), view plane. */
  readonly beacon: Vec | undefined;
}

/** What the aim can be caught by, for choosing among. */
export type Catch = SnapKind | 'picture';
export const CATCHES: readonly Catch[] = [...SNAP_KINDS, 'picture'];
/** What lies straight on is nearly everywhere, and a grid needs a step: both are asked for. */
const FIRST_CATCHES: readonly Catch[] = CATCHES.filter((kind) => kind !== 'straight-on' && kind !== 'grid');

const NO_VIEWPORT: Viewport = { width: 0, height: 0, zoom: 1, centre: [0, 0] };

/** How a sitting begins: where the last one ended, as far as that is known. */
export function startState(job: Job, draft: string | null): SessionState {
  const restored = readDraft(draft);
  const known = job.views.some((view) => view.id === restored?.view);
  return {
    viewId: known ? restored?.view : job.views[0]?.id,
    elsewhere: undefined,
    viewport: NO_VIEWPORT,
    slidFrom: undefined,
    straight: false,
    ghost: 0,
    tool: restored?.tool ?? startTool('select'),
    layer: job.layers.find((layer) => !layer.lock)?.id ?? job.layers[0]!.id,
    evidence: undefined,
    aim: undefined,
    pointer: 'mouse',
    patch: undefined,
    nudging: false,
    snapping: true,
    catching: FIRST_CATCHES,
    grid: undefined,
    turn: 0,
    magnifier: false,
    caliper: false,
    accuracy: false,
    others: false,
    folding: undefined,
    cleaning: undefined,
    suggested: [],
    advises: false,
    notice: undefined,
    beacon: undefined,
  };
}

/** The tool and view of a sitting that ended; undefined when there is none or it cannot be read. */
function readDraft(text: string | null): { view?: string; tool?: ActiveTool } | undefined {
  if (!text) return undefined;
  try {
    const draft = JSON.parse(text) as { view?: string; tool?: unknown } | null;
    return isToolLike(draft?.tool)
      ? { ...(draft?.view === undefined ? {} : { view: draft.view }), tool: draft.tool }
      : undefined;
  } catch {
    return undefined;
  }
}

/** The layer that is drawn on in a view: one that lies at a level is for views that do not show that level's direction, so elsewhere it is laid down for the first that lies nowhere of its own. */
export function layerIn({ layers, features, views }: Job, view: string, chosen: string): string {
  const shown = views.find(({ id }) => id === view);
  const facing = shown && facingOf(shown, features);
  const level = layers.find(({ id }) => id === chosen)?.liesAt;
  const along = features.find(({ id }) => id === level)?.along;
  if (along === undefined || !facing || !tellsAlong(facing, along)) return chosen;
  return layers.find(({ lock, liesAt }) => !lock && liesAt === undefined)?.id ?? chosen;
}
