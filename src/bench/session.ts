import { createStore, type StoreApi } from 'zustand/vanilla';
import type { FittedView } from '@/core/derive';
import { applyHomography } from '@/core/calibrate';
import type { Vec } from '@/core/geometry';
import { findGuideLine, shapeOf, type SnapTarget } from '@/core/outline';
import { newId, type JobStore } from '@/store';
import { aimAt, aimZoom, type Aim, type Pointer } from './aim';
import { findDraft, startTool, toolOf, TOOLS, type ActiveTool, type Effect, type ToolContext, type ToolInput, type ToolName } from './tools';
import { panBy, resized, toScreen, toSheet, zoomAbout, zoomTo, type Viewport } from './viewport';

/** What was said to the user last; the number makes the same words twice two notices. */
export interface Notice {
  readonly code: string;
  readonly detail: Readonly<Record<string, string | number>>;
  readonly count: number;
}

/** Everything about one sitting at the bench that is not in the job: where one looks, what one points at, the tool in hand. */
export interface SessionState {
  readonly viewId: string | undefined;
  readonly viewport: Viewport;
  readonly tool: ActiveTool;
  readonly aim: Aim | undefined;
  readonly pointer: Pointer;
  /** Where the magnified patch stands on the bench; undefined hides it. */
  readonly patch: Vec | undefined;
  /** The patch shows what was just set and can be nudged. */
  readonly nudging: boolean;
  readonly snapping: boolean;
  readonly magnifier: boolean;
  readonly layer: string;
  readonly notice: Notice | undefined;
  /** The outline made last, selected for what comes next. */
  readonly made: string | undefined;
  /** A place that is pointed out (a finding of the check), view plane. */
  readonly beacon: Vec | undefined;
}

export interface Session extends StoreApi<SessionState> {
  findFitted(): FittedView | undefined;
  findContext(): ToolContext | undefined;
  chooseView(id: string): void;
  chooseTool(name: ToolName): void;
  setTool(tool: ActiveTool): void;
  setLayer(layer: string): void;
  input(input: ToolInput): void;
  say(code: string, detail?: Notice['detail']): void;
  /** Moves the aim to a place on the bench (CSS px). */
  aimAtScreen(screen: Vec, pointer: Pointer): void;
  setAtAim(): void;
  dropAim(): void;
  nudge(direction: Vec): void;
  /** Moves the aim by CSS pixels of the bench, from its middle when there is none yet. */
  moveAim(by: Vec): void;
  /** Lets go of a node or handle that was pressed and not moved. */
  releaseGrab(): void;
  resize(width: number, height: number): void;
  pan(by: Vec): void;
  zoom(about: Vec, factor: number): void;
  showAll(): void;
  /** Brings a box of the view plane into sight, and points at its middle. */
  goTo(min: Vec, max: Vec): void;
  toggle(name: 'snapping' | 'magnifier'): void;
}

const NO_VIEWPORT: Viewport = { width: 0, height: 0, zoom: 1, centre: [0, 0] };

export function createSession(jobs: JobStore, draft: string | null): Session {
  const restored = readDraft(draft);
  const { job } = jobs.getState();
  const store = createStore<SessionState>()(() => ({
    viewId: restored?.view && job.views.some((view) => view.id === restored.view) ? restored.view : job.views[0]?.id,
    viewport: NO_VIEWPORT, tool: restored?.tool ?? startTool('select'), aim: undefined, pointer: 'mouse', patch: undefined, nudging: false,
    snapping: true, magnifier: false, layer: job.layers.find((layer) => !layer.lock)?.id ?? job.layers[0]!.id, notice: undefined, made: undefined, beacon: undefined,
  }));
  const { getState: get, setState: set } = store;
  let shownView: string | undefined;

  const findFitted = () => {
    const { viewId } = get();
    return viewId === undefined ? undefined : jobs.getState().derived.views.get(viewId);
  };
  const findContext = (): ToolContext | undefined => {
    const fitted = findFitted();
    const current = jobs.getState().job;
    const layer = current.layers.some((other) => other.id === get().layer) ? get().layer : current.layers[0]!.id;
    return fitted && { job: current, fitted, layer, newId };
  };
  const say: Session['say'] = (code, detail = {}) => set({ notice: { code, detail, count: (get().notice?.count ?? 0) + 1 } });

  function perform(effects: readonly Effect[]): void {
    for (const effect of effects) {
      if (effect.kind === 'run') jobs.getState().run(effect.command);
      else if (effect.kind === 'made') set({ made: effect.outline });
      else say(effect.code);
    }
  }

  function setTool(tool: ActiveTool): void {
    set({ tool, beacon: undefined });
    jobs.getState().setDraft(JSON.stringify({ view: get().viewId, tool }));
  }

  function input(given: ToolInput): void {
    const context = findContext();
    if (!context) return;
    if (jobs.getState().readOnly) return say('read-only');
    const { tool } = get();
    const [state, effects] = toolOf(tool).step(tool.state, given, context);
    if (state !== tool.state) setTool({ name: tool.name, state } as ActiveTool);
    perform(effects);
  }

  /** What the aim can catch on: shown outlines of this view, guides, and the outline that is being drawn. */
  function listTargets(context: ToolContext): readonly SnapTarget[] {
    const { job: current, fitted } = context;
    const { shapes } = jobs.getState().derived;
    const shown = new Set(current.layers.filter((layer) => layer.show).map((layer) => layer.id));
    const tool = get().tool;
    const carried = tool.name === 'chain' ? tool.state.carries?.id : undefined;
    const outlines = current.outlines.filter((outline) => outline.view === fitted.view.id && shown.has(outline.layer) && outline.id !== carried);
    const drafted = tool.name === 'chain' ? findDraft(tool.state, context) : undefined;
    const pieces = [...outlines.map((outline) => shapes.get(outline.id)), drafted && shapeOf(drafted, fitted.placing)].flatMap((shape) => shape?.pieces ?? []);
    const start = tool.name === 'chain' && tool.state.nodes.length === 1 ? [] : pieces;
    const reach = 2 * Math.max(...cornerDistances(fitted));
    const guides = current.guides.filter((guide) => guide.view === fitted.view.id).map((guide) => findGuideLine(guide, fitted.placing, reach));
    return [...start.map((piece) => ({ piece, guide: false })), ...guides.flatMap((piece) => (piece ? [{ piece, guide: true }] : []))];
  }

  function aimAtScreen(screen: Vec, pointer: Pointer): void {
    const context = findContext();
    if (!context) return;
    const { viewport, snapping, tool } = get();
    const catching = snapping && tool.name !== 'select';
    const aim = aimAt(toSheet(viewport, screen), { fit: context.fitted.fit, zoom: viewport.zoom, pointer, snapping: catching, targets: catching ? listTargets(context) : [] });
    set({ aim, pointer, nudging: false, patch: pointer === 'touch' ? screen : undefined });
  }

  return Object.assign(store, {
    findFitted, findContext, setTool, input, say,
    chooseView(id: string) {
      set({ viewId: id, aim: undefined, patch: undefined });
      setTool(startTool(get().tool.name));
      showAll();
    },
    chooseTool: (name: ToolName) => {
      set({ patch: undefined, nudging: false });
      setTool(startTool(name));
    },
    setLayer: (layer: string) => set({ layer }),
    aimAtScreen,
    setAtAim() {
      const { aim, pointer } = get();
      if (!aim) return;
      input({ kind: 'set', aim });
      set({ nudging: true, patch: pointer === 'touch' ? get().patch : undefined });
    },
    dropAim: () => set({ aim: undefined, patch: undefined, nudging: false }),
    nudge([dx, dy]: Vec) {
      const { viewport, aim, pointer } = get();
      const step = 1 / (pointer === 'touch' ? aimZoom(viewport.zoom) : viewport.zoom);
      const by: Vec = [dx * step, dy * step];
      input({ kind: 'nudge', by });
      const fitted = findFitted();
      if (!aim || !fitted) return;
      const sheet: Vec = [aim.sheet[0] + by[0], aim.sheet[1] + by[1]];
      set({ aim: { ...aim, sheet, plane: applyHomography(fitted.fit.toPlane, sheet), free: sheet, snap: undefined } });
    },
    moveAim(by: Vec) {
      const { aim, viewport } = get();
      const from: Vec = aim ? toScreen(viewport, aim.free) : [viewport.width / 2, viewport.height / 2];
      aimAtScreen([from[0] + by[0], from[1] + by[1]], 'keyboard');
    },
    releaseGrab() {
      const { tool } = get();
      if (tool.name === 'select') set({ tool: { name: 'select', state: { ...tool.state, grabbed: undefined } } });
    },
    resize(width: number, height: number) {
      set({ viewport: resized(get().viewport, width, height) });
      if (shownView !== get().viewId) showAll();
    },
    pan: (by: Vec) => set({ viewport: panBy(get().viewport, by), ...(get().nudging ? {} : { patch: undefined }) }),
    zoom: (about: Vec, factor: number) => set({ viewport: zoomAbout(get().viewport, about, factor), patch: undefined, nudging: false }),
    showAll,
    goTo(min: Vec, max: Vec) {
      const fitted = findFitted();
      if (!fitted) return;
      const corners = [min, max, [min[0], max[1]] as Vec, [max[0], min[1]] as Vec].map((p) => applyHomography(fitted.fit.toSheet, p));
      const xs = corners.map((p) => p[0]);
      const ys = corners.map((p) => p[1]);
      set({ viewport: zoomTo(get().viewport, [Math.min(...xs), Math.min(...ys)], [Math.max(...xs), Math.max(...ys)], 0.35), beacon: [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2] });
    },
    toggle: (name: 'snapping' | 'magnifier') => set({ [name]: !get()[name] }),
  });

  function showAll(): void {
    const fitted = findFitted();
    if (!fitted || get().viewport.width === 0) return;
    shownView = fitted.view.id;
    set({ viewport: zoomTo(get().viewport, [0, 0], [fitted.sheet.width, fitted.sheet.height], 0.02) });
  }
}

function cornerDistances({ sheet, placing }: FittedView): number[] {
  const corners: Vec[] = [[0, 0], [sheet.width, 0], [0, sheet.height], [sheet.width, sheet.height]];
  return corners.map((corner) => Math.hypot(...placing.toPlane(corner)));
}

/** The tool and view of a sitting that ended; undefined when there is none or it cannot be read. */
function readDraft(text: string | null): { view?: string; tool?: ActiveTool } | undefined {
  if (!text) return undefined;
  try {
    const draft = JSON.parse(text) as { view?: string; tool?: ActiveTool };
    return draft.tool && Object.hasOwn(TOOLS, draft.tool.name) ? draft : undefined;
  } catch {
    return undefined;
  }
}
