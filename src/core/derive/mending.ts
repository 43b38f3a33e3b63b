import {
  addRelations,
  changeOutline,
  named,
  removeOutlines,
  runCommand,
  startHistory,
  together,
  type Command,
  type Job,
} from '../job';
import { withSmooth, type CheckLimits, type Finding, type Shape } from '../outline';
import { createDeriver, type ToldOfJob } from './derive';
import type { Editor } from './editing';
import { findHealing, findNodeDeleted } from './edits';
import { shapesCutIn } from './regions';

/** What mends a finding by itself; undefined where only the practitioner can tell. */
export function findMending(finding: Finding, job: Job, editor: Editor): Command | undefined {
  switch (finding.kind) {
    case 'open':
      return findHealing(finding, job, editor);
    case 'doubled':
      return finding.outline === finding.other || !isWhole(finding.other, job)
        ? undefined
        : removeOutlines([finding.other]);
    case 'short': {
      const chain = job.outlines.find(({ id }) => id === finding.outline);
      const node = chain?.shape === 'chain' ? (chain.nodes[finding.segment + 1] ?? chain.nodes[0]) : undefined;
      return chain?.shape === 'chain' && node ? findNodeDeleted(chain, node.id) : undefined;
    }
    case 'kink':
      return tangency(finding, job, editor.newId);
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
function tangency(
  { outline, segment }: Extract<Finding, { kind: 'kink' }>,
  job: Job,
  newId: () => string,
): Command | undefined {
  const chain = job.outlines.find(({ id }) => id === outline);
  if (chain?.shape !== 'chain') return undefined;
  const next = (segment + 1) % chain.nodes.length;
  const kinds = [chain.segments[segment], chain.segments[next]].map((each) => each?.kind);
  if (kinds.includes('curve')) return changeOutline(withSmooth(chain, chain.nodes[next]!.id, true), 'smooth-made');
  if (kinds.some((kind) => kind !== 'line' && kind !== 'arc')) return undefined;
  const on = [segment, next].map((i) => ({ outline, segment: chain.nodes[i]!.id }));
  return addRelations([{ id: newId(), plane: chain.plane, kind: 'tangent', on }]);
}

/** Finds what keeps shapes from being cut; undefined where that was stopped. */
export type Check = (shapes: readonly Shape[], limits: CheckLimits) => Promise<readonly Finding[] | undefined>;

/** What mending is done with. `told`: what the job has come to, which no mending changes. */
export interface Mender {
  readonly check: Check;
  readonly told?: ToldOfJob | undefined;
  newId(): string;
}

const MOST_ROUNDS = 30;

/**
 * Everything that mends itself, as one step, with how many findings that was; undefined where nothing does. In rounds: what one mending changed is looked through
 * again before it is mended further. Ends farther apart than the shortest piece are left alone: a line between them is nobody's wish until it is said.
 */
export async function mendAll(
  job: Job,
  view: string,
  limits: CheckLimits,
  { check, newId, told }: Mender,
): Promise<{ readonly command: Command; readonly count: number } | undefined> {
  const [derive, tried, commands] = [createDeriver(), new Set<string>(), [] as Command[]];
  for (let now = job, round = 0; round < MOST_ROUNDS; round++) {
    const derived = derive(now, told);
    const fitted = derived.views.get(view);
    const findings = await check(shapesCutIn(now, derived, fitted?.view.plane ?? ''), limits);
    if (!fitted || !findings) return undefined;
    const wanted = findings.filter(
      (finding) => !tried.has(keyOf(finding)) && !(finding.kind === 'open' && finding.gap > limits.shortest),
    );
    const mended = mendApart(wanted, now, { fitted, newId });
    mended.findings.forEach((finding) => tried.add(keyOf(finding)));
    commands.push(...mended.commands);
    if (mended.commands.length === 0) break;
    now = mended.job;
  }
  const last = commands.at(-1);
  if (!last) return undefined;
  return {
    command: named(together([...commands.slice(0, -1), last]), 'mended', { count: commands.length }),
    count: commands.length,
  };
}

/** Mends those of some findings that have no outline in common. */
function mendApart(findings: readonly Finding[], job: Job, editor: Editor) {
  const touched = new Set<string>();
  const [mended, commands] = [[] as Finding[], [] as Command[]];
  let now = job;
  for (const finding of findings) {
    const on = outlinesOf(finding);
    const command = on.some((id) => touched.has(id)) ? undefined : findMending(finding, now, editor);
    if (!command) continue;
    on.forEach((id) => touched.add(id));
    mended.push(finding);
    commands.push(command);
    now = runCommand(startHistory(now), command).job;
  }
  return { findings: mended, commands, job: now };
}

function outlinesOf(finding: Finding): readonly string[] {
  if (finding.kind === 'sliver') return [];
  const other =
    finding.kind === 'doubled' ? finding.other : finding.kind === 'open' ? finding.partner?.outline : undefined;
  return other === undefined ? [finding.outline] : [finding.outline, other];
}

const keyOf = ({ kind, at }: Finding) => `${kind} ${at.map((value) => value.toFixed(3)).join(' ')}`;
