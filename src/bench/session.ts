import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Hand } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { distance, subtract, type Vec } from '@/core/geometry';
import { findLockOn, type EvidenceKind } from '@/core/job';
import { newId, type JobStore, type LoadedReference } from '@/store';
import { pointingSigma, type Aim } from './aim';
import { aimIn, isCatching, nudgedBy, turnAfterIn, type Aimed } from './aimed';
import type { PictureEdges } from './edges';
import { Covers } from './covers';
import { findElsewhere, fittedIn } from './ground';
import { boundsOf, boxOnBench, layingOf, squaredUp, turned } from './laying';
import type { LookScene } from './look';
import { seekIn, type Sought } from './seeking';
import { layerIn, startState, type Catch, type Notice, type SessionState } from './session-state';
import { Framing } from './framing';
import {
  canBeShown,
  startEvidence,
  startTool,
  toolOf,
  type ActiveTool,
  type Effect,
  type Elsewhere,
  type EvidenceState,
  type FrameState,
  type ToolContext,
  type ToolInput,
  type ToolName,
} from './tools';
import { middleOfBench, toScreen, sheetUnder } from './viewport';
import { listWorkedOn } from './worked-on';

/** The aim is where it was. CSS px. */
const SAME_AIM = 3;

/** One sitting at the bench: turns pointing and typing into inputs of the tool in hand, and its effects into commands. */
export class Session {
  readonly store: StoreApi<SessionState>;
  /** Reference geometry of the job that is at hand. */
  readonly references = createStore<readonly LoadedReference[]>(() => []);
  private edges: PictureEdges | undefined;
  readonly framing: Framing;
  /** What lies over the bench. */
  readonly covers = new Covers((room) => this.framing.setRoom(room));
  private lastAimed: Aimed | undefined;
  /** A point that waits for the picture around it. */
  private awaited: Aimed | undefined;

  constructor(
    private readonly jobs: JobStore,
    draft: string | null,
  ) {
    this.store = createStore<SessionState>()(() => startState(jobs.getState().job, draft));
    this.framing = new Framing(this.store, () => this.findScene());
    if (!canBeShown(this.getState().tool, this.findContext())) this.set({ tool: startTool('select') });
    this.layAgain();
  }

  /** Where the picture's edges are looked for. */
  setEdges(edges: PictureEdges | undefined): void {
    this.edges = edges;
  }

  getState(): SessionState {
    return this.store.getState();
  }

  findFitted(): FittedView | undefined {
    const { viewId, elsewhere } = this.getState();
    return fittedIn(viewId, elsewhere, this.references.getState(), this.jobs.getState().derived);
  }

  findContext(): ToolContext | undefined {
    const fitted = this.findFitted();
    const { job, derived } = this.jobs.getState();
    if (!fitted) return undefined;
    const chosen = job.layers.find(({ id }) => id === this.getState().layer);
    return { job, fitted, shapes: derived.shapes, layer: (chosen ?? job.layers[0]!).id, newId };
  }

  chooseView(id: string): void {
    this.setAwaited();
    const { tool: before, layer } = this.getState();
    const gone = { elsewhere: undefined, aim: undefined, patch: undefined, folding: undefined };
    this.set({ viewId: id, layer: layerIn(this.jobs.getState().job, id, layer), ...gone });
    this.layAgain();
    const tool = toolOf(before).goesAlong ? before : startTool(before.name);
    this.setTool(this.refusalFor(tool) ? startTool('select') : tool);
    this.framing.showAll();
  }

  private take(tool: ActiveTool): void {
    this.set({ patch: undefined, nudging: false });
    this.setTool(tool);
  }

  chooseTool(name: ToolName): void {
    this.take(startTool(name));
  }

  /** Begins to point at a piece of evidence; `from` is what is known of it already. */
  pointAtEvidence(kind: EvidenceKind, role: 'use' | 'check' = 'use', from: Partial<EvidenceState> = {}): void {
    this.take({ name: 'evidence', state: startEvidence(kind, role, from) });
  }

  /** Begins to frame a part of the sheet. */
  frame(state: FrameState): void {
    this.take({ name: 'frame', state });
  }

  setReferences(references: readonly LoadedReference[]): void {
    this.references.setState(references, true);
  }

  /** Looks at a plane or at another view, or with nothing back at the view that is worked on. */
  lookAt(target: Elsewhere | undefined): void {
    const isThere = target && findElsewhere(target, this.references.getState(), this.jobs.getState().derived);
    const elsewhere = isThere ? target : undefined;
    if (!elsewhere && !this.getState().elsewhere) return;
    this.set({ elsewhere, aim: undefined, patch: undefined, nudging: false, straight: false });
    this.layAgain();
    this.framing.showAll();
  }

  /** Changes something about the tool in hand, or begins it so. A point that still waits is set before, and not lost. */
  changeTool<N extends ToolName>(name: N, change: Partial<Extract<ActiveTool, { name: N }>['state']>): void {
    this.setAwaited();
    const { tool } = this.getState();
    this.setTool({ name, state: { ...(tool.name === name ? tool : startTool(name)).state, ...change } } as ActiveTool);
  }

  setTool(tool: ActiveTool): void {
    this.setAwaited();
    const refusal = this.refusalFor(tool);
    if (refusal) return this.say(refusal.code, refusal.detail);
    if (!toolOf(tool).looksElsewhere && this.getState().elsewhere) this.lookAt(undefined);
    this.set({ tool, beacon: undefined, suggested: [] });
    this.jobs.getState().setDraft(JSON.stringify({ view: this.getState().viewId, tool }));
  }

  /** Why a tool is not taken in hand over this view: what it does would change a locked one, or measure one that is only looked at. */
  private refusalFor(tool: ActiveTool): Pick<Notice, 'code' | 'detail'> | undefined {
    const { looks, places } = toolOf(tool);
    const lock = places?.(tool.state) ? findLockOn(this.jobs.getState().job, this.getState().viewId) : undefined;
    if (lock) return { code: 'view-is-locked', detail: lock };
    return !looks && this.findFitted()?.view.lookOnly ? { code: 'view-only-to-look', detail: {} } : undefined;
  }

  /** Points a piece of evidence out, on the picture and among the cards; once more lets it be. */
  showEvidence(id: string): void {
    this.set({ evidence: this.getState().evidence === id ? undefined : id });
    this.framing.keep();
  }

  showAdvice(advises: boolean): void {
    this.set({ advises });
  }

  setCleaning(done: number | undefined): void {
    this.set({ cleaning: done });
  }

  suggest(frames: readonly (readonly Vec[])[]): void {
    this.set({ suggested: frames });
  }

  setLayer(layer: string): void {
    this.set({ layer });
  }

  toggle(name: 'snapping' | 'magnifier' | 'accuracy' | 'caliper' | 'others'): void {
    this.set({ [name]: !this.getState()[name] });
  }

  /** Lays the picture squared up, or as it was taken, and brings it whole into sight. */
  setStraight(straight: boolean): void {
    this.set({ straight, ghost: 0 });
    this.layAgain();
    this.framing.showAll();
  }

  /** Looks at all views together, or with nothing at the one again. */
  readonly setFolding = (folding: SessionState['folding']): void => this.set({ folding });

  setGhost(ghost: number): void {
    this.set({ ghost });
  }

  /** The picture lies as the fit has it now. */
  layAgain(): void {
    const { straight, viewport } = this.getState();
    const fitted = this.findFitted();
    const laid = straight && fitted?.fit.scaled ? squaredUp(fitted) : fitted && turned(fitted);
    this.set({ viewport: { ...viewport, laid } });
  }

  say(code: string, detail: Notice['detail'] = {}): void {
    this.set({ notice: { code, detail, at: Date.now() } });
  }

  isReadOnly(): boolean {
    return this.jobs.getState().readOnly !== undefined;
  }

  /** Takes back what was said last: it has come about. */
  hush(): void {
    this.set({ notice: undefined });
  }

  input(given: ToolInput): void {
    this.setAwaited();
    const context = this.findContext();
    if (!context) return;
    if (this.isReadOnly()) return this.say('read-only');
    const { tool } = this.getState();
    const [state, effects] = toolOf(tool).step(tool.state, given, context);
    if (state !== tool.state) this.setTool({ name: tool.name, state } as ActiveTool);
    effects.forEach((effect) => this.perform(effect));
    // What comes about without being pointed at may lie anywhere.
    if (given.kind === 'found' || given.kind === 'typed' || given.kind === 'propose') this.framing.keep();
  }

  /** Moves the aim to a place on the bench (CSS px); `unaided` of a finger: see `GestureEffect`. */
  aimAtScreen(screen: Vec, pointer: Hand['pointer'], unaided = 0): void {
    const context = this.findContext();
    if (!context) return;
    // Another place has other catches: they are gone through from the best one on again.
    const turn = this.lastAimed && distance(this.lastAimed.screen, screen) < SAME_AIM ? this.getState().turn : 0;
    const { viewport } = this.getState();
    this.lastAimed = { screen, pointer, unaided, sheet: sheetUnder(viewport, screen), zoom: viewport.zoom };
    this.set({
      aim: this.aimFor(this.lastAimed, context, turn),
      pointer,
      turn,
      nudging: false,
      patch: pointer === 'touch' ? screen : undefined,
    });
  }

  private readonly aimFor = (aimed: Aimed, context: ToolContext, turn = 0): Aim =>
    aimIn(aimed, turn, this.around(context));

  private around(context: ToolContext) {
    const [{ derived }, references] = [this.jobs.getState(), this.references.getState()];
    return { context, derived, session: this.getState(), references, edges: this.edges };
  }

  /**
   * The next of several things that could be meant here: what else the aim could be caught by, at last nothing; after a point was set, that goes there. While one chooses,
   * what lies under what was chosen.
   */
  catchNext(): void {
    const { nudging, aim, tool, turn } = this.getState();
    const context = this.findContext();
    if (toolOf(tool).picks) return this.input({ kind: 'another' });
    if (!aim || !this.lastAimed || !context) return;
    const after = turnAfterIn(aim, this.lastAimed, turn, this.around(context));
    this.set({ turn: after });
    if (!nudging) return this.aimAtLast();
    const next = this.aimFor(this.lastAimed, context, after);
    this.input({ kind: 'nudge', by: subtract(next.sheet, aim.sheet), sigma: next.sigma });
    this.set({ aim: next });
  }

  private aimAtLast(): void {
    if (this.lastAimed) this.aimAtScreen(this.lastAimed.screen, this.lastAimed.pointer, this.lastAimed.unaided);
  }

  /** With a grid the aim is caught by it. */
  setGrid(grid: number | undefined): void {
    const others = this.getState().catching.filter((kind) => kind !== 'grid');
    this.set({ grid, catching: grid === undefined ? others : [...others, 'grid'] });
  }

  setCatching(catching: readonly Catch[]): void {
    this.set({ catching });
  }

  /** Looks again from where the aim was last: a part of the picture has come in the meantime. */
  aimAgain(): void {
    const { aim, nudging } = this.getState();
    if (aim && !nudging) this.aimAtLast();
  }

  /** Moves the aim by CSS pixels of the bench, from its middle when there is none yet. */
  moveAim(by: Vec): void {
    const { aim, viewport } = this.getState();
    const from: Vec = aim ? toScreen(viewport, aim.free) : middleOfBench(viewport);
    this.aimAtScreen([from[0] + by[0], from[1] + by[1]], 'keyboard');
  }

  /** A finger is lifted: the point is set where it was aimed at, as well as it had been aimed by then; what was shown to catch it does. */
  lift(screen: Vec, unaided: number): void {
    if (!this.lastAimed || distance(this.lastAimed.screen, screen) > 0) this.aimAtScreen(screen, 'touch', unaided);
    const { aim, viewport } = this.getState();
    if (aim && aim.snap !== 'picture-corner')
      this.set({ aim: { ...aim, sigma: pointingSigma({ pointer: 'touch', unaided }, viewport.zoom) } });
    this.setAtAim(unaided);
  }

  /** Sets a point at the aim. Where that part of the picture is still on its way, as soon as it is seen what catches the aim there. */
  setAtAim(unaided = this.lastAimed?.unaided ?? 0): void {
    this.setAwaited();
    const { aim } = this.getState();
    const coming = aim && isCatching(this.getState()) ? this.edges?.coming(aim.free) : undefined;
    if (!aim || !coming || !this.lastAimed) return void (aim && this.setAt(aim));
    const aimed = this.lastAimed;
    const awaited: Aimed = { ...aimed, unaided };
    this.awaited = awaited;
    void coming.then(() => this.awaited === awaited && this.setAwaited(aimed));
  }

  /** What waits is set before anything else is done. */
  private setAwaited(aimed?: Aimed): void {
    const { awaited } = this;
    this.awaited = undefined;
    const context = awaited && this.findContext();
    if (!context) return;
    const aim = this.aimFor(awaited, context);
    if (aimed && aimed === this.lastAimed) this.set({ aim });
    this.setAt(aim);
  }

  private setAt(aim: Aim): void {
    const { pointer, patch, snapping } = this.getState();
    this.input({
      kind: 'set',
      aim,
      seek: snapping && this.edges !== undefined && (aim.snap === undefined || aim.edge !== undefined),
    });
    const { tool } = this.getState();
    // Where no point was set there is nothing to nudge, and the patch would only be in the way.
    const pointless = toolOf(tool).setsNoPoint?.(tool.state) ?? false;
    if (this.getState().aim === undefined) return;
    this.set({ nudging: !pointless, patch: pointer === 'touch' && !pointless ? patch : undefined });
  }

  dropAim(): void {
    this.set({ aim: undefined, patch: undefined, nudging: false });
  }

  /** Moves what was set last by pixels of what is looked at: of the patch for a finger, of the bench for a mouse. */
  nudge(by: Vec): void {
    const { aim } = this.getState();
    const fitted = this.findFitted();
    const { from, sheet, sigma } = nudgedBy(by, this.getState());
    this.input({ kind: 'nudge', by: subtract(sheet, from), sigma });
    if (!aim || !fitted) return;
    const plane = fitted.fit.toPlane(sheet);
    this.set({ aim: { ...aim, sigma, sheet, plane, snap: undefined, edge: undefined, free: sheet } });
  }

  /** Brings a box of the view plane into sight, and points at its middle. */
  goTo(min: Vec, max: Vec): void {
    const fitted = this.findFitted();
    if (fitted) this.framing.goTo(boxOnBench(layingOf(this.getState().viewport, fitted.fit), { min, max }));
    this.set({ beacon: [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2] });
  }

  private findScene(): LookScene | undefined {
    const context = this.findContext();
    if (!context) return undefined;
    const laying = layingOf(this.getState().viewport, context.fitted.fit);
    return {
      whole: boundsOf(laying, context.fitted),
      focus: listWorkedOn(this.getState(), context).map(laying.fromPlane),
    };
  }

  /** Chooses outlines, with the tool for that in hand. */
  hold(outlines: readonly string[]): void {
    this.take({ name: 'select', state: { outlines, several: outlines.length > 1, moving: false } });
  }

  private set(change: Partial<SessionState>): void {
    this.store.setState(change);
  }

  private perform(effect: Effect): void {
    if (effect.kind === 'run') this.jobs.getState().run(effect.command);
    else if (effect.kind === 'say') this.say(effect.code);
    else if (effect.kind === 'look') this.lookAt(effect.at);
    else if (effect.kind === 'hold') this.hold(effect.outlines);
    else if (effect.kind === 'choose') this.set({ evidence: effect.evidence });
    else void this.seek(effect);
  }

  /** The answer counts only if the tool has not gone on in the meantime. */
  private async seek(sought: Sought): Promise<void> {
    const { tool } = this.getState();
    this.say('seeking');
    const fitted = this.findFitted();
    const points = this.edges && fitted ? await seekIn(this.edges, fitted, sought) : undefined;
    if (this.getState().tool.state !== tool.state) return;
    this.set({ patch: undefined, nudging: false, notice: undefined });
    this.input(points ? { kind: 'found', points } : { kind: 'not-found' });
    if (!points) this.say(sought.otherwise);
  }
}
