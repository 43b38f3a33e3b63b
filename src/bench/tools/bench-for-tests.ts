import { createDeriver } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import {
  addEvidence,
  addSheet,
  createJob,
  createView,
  runCommand,
  startHistory,
  type Evidence,
  type History,
  type Sheet,
} from '@/core/job';
import { shapeOf, type DrawnOutline } from '@/core/outline';
import type { Aim } from '../aim';
import { startTool, toolOf, type ActiveTool, type Effect, type ToolContext, type ToolInput, type ToolName } from '.';
import type { Preview } from './tool';

function inWords(effect: Exclude<Effect, { kind: 'run' }>): string {
  switch (effect.kind) {
    case 'say':
      return effect.code;
    case 'seek':
      return `seek ${effect.what}`;
    case 'look':
      return `look ${effect.at}`;
    case 'hold':
      return `hold ${effect.outlines.length}`;
    default:
      return `choose ${effect.evidence}`;
  }
}

/** A scan of 10 px/mm on which a tool is used as in the app, without a screen. */
export class HandBench {
  history: History;
  tool: ActiveTool;
  said: string[] = [];
  /** The view that is looked at. */
  view = 'v';
  private ids = 0;

  constructor(tool: ToolName, scaled = true) {
    const sheet: Sheet = {
      id: 's',
      name: 's',
      picture: 'a'.repeat(64),
      mediaType: 'image/png',
      bytes: 1,
      width: 2000,
      height: 1000,
      kind: 'scan',
      taken: {},
    };
    const empty = runCommand(startHistory(createJob('j', 'Job', new Date(0))), addSheet(sheet, createView('v', sheet)));
    const length: Evidence = {
      id: 'e',
      kind: 'length',
      groups: [['p', 'q']],
      said: { length: { value: 100, written: '100' } },
      guess: false,
      role: 'use',
    };
    const ends = [
      { id: 'p', at: [0, 500] as const, sigma: 1 },
      { id: 'q', at: [1000, 500] as const, sigma: 1 },
    ];
    this.history = scaled ? runCommand(empty, addEvidence('v', length, ends)) : empty;
    this.tool = startTool(tool);
  }

  context(): ToolContext {
    const { views, shapes } = createDeriver()(this.history.job);
    return {
      job: this.history.job,
      fitted: views.get(this.view)!,
      shapes,
      layer: 'outline',
      newId: () => `id${this.ids++}`,
    };
  }

  aim(x: number, y: number, snap?: Aim['snap']): Aim {
    const sheet: Vec = [x, y];
    return { sheet, plane: this.context().fitted.placing.toPlane(sheet), sigma: 0.5, snap, free: sheet };
  }

  give(...inputs: ToolInput[]): this {
    for (const input of inputs) {
      const [state, effects] = toolOf(this.tool).step(this.tool.state, input, this.context());
      this.tool = { name: this.tool.name, state } as ActiveTool;
      for (const effect of effects) {
        if (effect.kind === 'run') this.history = runCommand(this.history, effect.command);
        else this.said.push(inWords(effect));
      }
    }
    return this;
  }

  set(...places: readonly Vec[]): this {
    return this.give(...places.map(([x, y]): ToolInput => ({ kind: 'set', aim: this.aim(x, y) })));
  }

  set_(change: object): this {
    this.tool = { name: this.tool.name, state: { ...this.tool.state, ...change } } as ActiveTool;
    return this;
  }

  /** The code of what the tool waits for. */
  hint(): string | undefined {
    return toolOf(this.tool).hint?.(this.tool.state, this.context())?.code;
  }

  /** What the tool shows while nothing is pointed at. */
  preview(): Preview {
    return toolOf(this.tool).preview(this.tool.state, undefined, this.context());
  }

  shape(index = 0) {
    return shapeOf(this.history.job.outlines[index] as DrawnOutline, this.context().fitted.placing);
  }
}
