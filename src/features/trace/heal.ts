import { createDeriver } from '@/core/derive';
import { addRelations, removeOutlines, runCommand, startHistory, together, type Command, type Job } from '@/core/job';
import { checkShapes, type CheckLimits, type Finding } from '@/core/outline';
import { newId } from '@/store';
import { findHealing, findNodeDeleted } from './edit-actions';
import type { FittedView } from '@/core/derive';

/** What mends a finding by itself; undefined where only the practitioner can tell. */
export function findMending(finding: Finding, job: Job, fitted: FittedView): Command | undefined {
  switch (finding.kind) {
    case 'open':
      return findHealing(finding, job, fitted);
    case 'doubled':
      return finding.outline === finding.other || !isWhole(finding.other, job) ? undefined : removeOutlines([finding.other]);
    case 'short': {
      const chain = job.outlines.find(({ id }) => id === finding.outline);
      const node = chain?.shape === 'chain' ? chain.nodes[finding.segment + 1] ?? chain.nodes[0] : undefined;
      return chain?.shape === 'chain' && node ? findNodeDeleted(chain, node.id) : undefined;
    }
    case 'kink':
      return tangency(finding, job);
    default:
      return undefined;
  }
}

/** A doubled outline goes only when it is nothing but what is doubled. */
function isWhole(id: string, job: Job): boolean {
  const outline = job.outlines.find((other) => other.id === id);
  return outline?.shape === 'circle' || (outline?.shape === 'chain' && outline.segments.length === 1);
}

/** What runs on smoothly is tangent from now on. */
function tangency({ outline, segment }: Extract<Finding, { kind: 'kink' }>, job: Job): Command | undefined {
  const chain = job.outlines.find(({ id }) => id === outline);
  if (chain?.shape !== 'chain') return undefined;
  const next = (segment + 1) % chain.nodes.length;
  const kinds = [chain.segments[segment], chain.segments[next]].map((each) => each?.kind);
  if (kinds.some((kind) => kind !== 'line' && kind !== 'arc')) return undefined;
  const on = [segment, next].map((i) => ({ outline, segment: chain.nodes[i]!.id }));
  return addRelations([{ id: newId(), view: chain.view, kind: 'tangent', on }]);
}

const MOST_MENDED = 200;

/** Everything that mends itself, one after the other, as one step; with how many findings that was. Ends farther apart than the shortest piece are left alone: a line between them is nobody's wish until it is said. */
export function mendAll(job: Job, view: string, limits: CheckLimits): { readonly command: Command; readonly count: number } | undefined {
  const commands: Command[] = [];
  const tried = new Set<string>();
  for (let now = job; commands.length < MOST_MENDED; ) {
    const derived = createDeriver()(now);
    const fitted = derived.views.get(view);
    const shapes = now.outlines.filter((outline) => outline.view === view && !outline.aid).flatMap(({ id }) => derived.shapes.get(id) ?? []);
    const mendable = checkShapes(shapes, limits).filter((finding) => !tried.has(keyOf(finding)) && !(finding.kind === 'open' && finding.gap > limits.shortest));
    const next = fitted && mendable.map((finding) => ({ finding, command: findMending(finding, now, fitted) })).find(({ command }) => command);
    if (!next?.command) break;
    tried.add(keyOf(next.finding));
    commands.push(next.command);
    now = runCommand(startHistory(now), next.command).job;
  }
  const last = commands.at(-1);
  if (!last) return undefined;
  const all = together([...commands.slice(0, -1), last]);
  return { command: { ...all, name: { code: 'mended', detail: { count: commands.length } } }, count: commands.length };
}

const keyOf = ({ kind, at }: Finding) => `${kind} ${at.map((value) => value.toFixed(3)).join(' ')}`;
