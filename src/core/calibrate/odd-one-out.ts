import { done, refused, type Result } from '../basics';
import { adjustView, type AdjustedView } from './adjust-view';
import type { Evidence, Points } from './evidence';
import { assumptionOf, indexOf, type MapModel, type MapPart } from './models';

/** What does not belong: pieces left aside or under suspicion, and assumptions that the evidence has overruled. */
export interface Judged {
  readonly adjusted: AdjustedView;
  readonly freed: ReadonlySet<MapPart>;
  /** Ids of the pieces that do not belong with the others. */
  readonly suspects: readonly string[];
  /** Whether the suspects are still in the reported fit: they are when nothing tells which of them is wrong. */
  readonly suspectsKept: boolean;
}

/** One explanation of a contradiction: these pieces are wrong, these assumptions do not hold. */
interface Story {
  readonly adjusted: AdjustedView;
  readonly freed: ReadonlySet<MapPart>;
  readonly aside: ReadonlySet<string>;
  /** Chi-square that is left, and what was given up for it: lower is the better story. */
  readonly cost: number;
}

/** A group is looked at when its test is as unlikely as 1 in 1000 (Baarda 1968); giving up one freedom has to bring as much. */
const CRITICAL = 3.29;
/** Two stories whose costs are closer than the first leave it open which is true; closer than the second, both are named. */
const MARGIN = 6;
const TIE = 0.5;
/** Pieces that are tried in one round: the ones whose tests are worst. */
const TRIED = 8;
/** How far an assumption may be off before a misread size is the likelier story; and freedoms that must be left to prove it. */
const PLAUSIBLE: Partial<Record<MapPart, { readonly limit: number; readonly left: number }>> = {
  stretch: { limit: 0.06, left: 0 }, skew: { limit: 0.04, left: 0 }, tilt: { limit: 1.15, left: 1 }, lens: { limit: 0.25, left: 1 }, focal: { limit: Infinity, left: 1 },
};

/**
 * Data snooping by what each explanation leaves unexplained (the mean-shift model: leaving a piece out is giving it an unknown
 * error; Baarda 1968; Kok, On data snooping and multiple outlier testing, 1984). Assumptions are pieces like any other, and
 * give way first where they explain a contradiction as well as a piece does. Each round changes one thing, by an adjustment of
 * its own; what was changed too early is taken back.
 */
export function judgeEvidence(model: MapModel, evidence: readonly Evidence[], points: Points): Result<Judged> {
  const whole = adjustView(model, evidence, points, new Set());
  if (!whole.ok) return whole;
  const tell = (freed: ReadonlySet<MapPart>, aside: ReadonlySet<string>, from?: AdjustedView): Story | undefined => {
    const told = adjustView(model, evidence.filter(({ id }) => !aside.has(id)), points, freed, from?.values);
    return told.ok && told.value.solution.settled && isPlausible(freed, told.value) ? { adjusted: told.value, freed, aside, cost: costOf(told.value) } : undefined;
  };
  const first: Story = { adjusted: whole.value, freed: new Set(), aside: new Set(), cost: costOf(whole.value) };
  const best = improved(first, tell);
  if (!best.adjusted.solution.settled) return refused('fit-not-found');
  const rivals = [...best.aside].flatMap((id) => listRivals(best, id, tell));
  const tied = rivals.filter(({ behind }) => behind < TIE).map(({ id }) => id);
  if (rivals.length === 0) return done({ adjusted: best.adjusted, freed: best.freed, suspects: [...best.aside], suspectsKept: false });
  // Nothing tells which of them is wrong: all stay in, and the contradiction widens the plus-minus.
  const together = tell(best.freed, new Set(), best.adjusted) ?? first;
  return done({ adjusted: together.adjusted, freed: together.freed, suspects: [...new Set([...best.aside, ...tied])], suspectsKept: true });
}

type Tell = (freed: ReadonlySet<MapPart>, aside: ReadonlySet<string>, from?: AdjustedView) => Story | undefined;

const costOf = ({ solution, diagnosis }: AdjustedView) => solution.chiSquare - CRITICAL ** 2 * diagnosis.redundancy;

function improved(first: Story, tell: Tell): Story {
  let story = first;
  for (let round = 0; round < 12; round++) {
    if (Math.max(0, ...story.adjusted.diagnosis.groups.map(sizeOf)) < CRITICAL) break;
    const next = bestOf(listNext(story, tell));
    if (!next || next.cost >= story.cost) break;
    story = withoutHaste(next, tell);
  }
  return story;
}

/** Every story that gives up one thing more: an assumption, or one of the pieces whose tests are worst. */
function listNext({ adjusted, freed, aside }: Story, tell: Tell): Story[] {
  const worst = [...adjusted.diagnosis.groups].filter(({ group }) => !partOf(group)).sort((a, b) => sizeOf(b) - sizeOf(a)).slice(0, TRIED);
  const assumed = adjusted.model.parts.filter(({ id, sigma }) => sigma && !freed.has(id));
  return [
    ...assumed.map(({ id }) => tell(new Set([...freed, id]), aside, id === 'tilt' ? undefined : adjusted)),
    ...worst.map(({ group }) => tell(freed, new Set([...aside, group]), adjusted)),
  ].filter((story) => story !== undefined);
}

/** The cheapest story; among those that cannot be told apart the one that takes nobody's word back. */
function bestOf(stories: readonly Story[]): Story | undefined {
  const cheapest = Math.min(...stories.map(({ cost }) => cost));
  const alike = stories.filter(({ cost }) => cost < cheapest + MARGIN);
  return alike.sort((a, b) => a.aside.size - b.aside.size || a.cost - b.cost)[0];
}

/** Takes back what turns out to be needless now. */
function withoutHaste(story: Story, tell: Tell): Story {
  let kept = story;
  const changes = [...[...story.aside].map((id) => ({ id })), ...[...story.freed].map((part) => ({ part }))];
  if (changes.length < 2) return story;
  for (const change of changes) {
    const aside = new Set([...kept.aside].filter((id) => !('id' in change) || id !== change.id));
    const freed = new Set([...kept.freed].filter((part) => !('part' in change) || part !== change.part));
    const back = tell(freed, aside, kept.adjusted);
    if (back && back.cost < kept.cost) kept = back;
  }
  return kept;
}

/** Pieces that could be the wrong one in the place of `id`, and how far behind that story is. */
function listRivals(best: Story, id: string, tell: Tell): { readonly id: string; readonly behind: number }[] {
  const others = new Set([...best.aside].filter((other) => other !== id));
  const restored = tell(best.freed, others, best.adjusted);
  if (!restored) return [];
  const worst = [...restored.adjusted.diagnosis.groups].filter(({ group }) => !partOf(group) && group !== id).sort((a, b) => sizeOf(b) - sizeOf(a)).slice(0, TRIED);
  return worst.flatMap(({ group }) => {
    const instead = tell(best.freed, new Set([...others, group]), restored.adjusted);
    return instead && instead.cost < best.cost + MARGIN ? [{ id: group, behind: instead.cost - best.cost }] : [];
  });
}

const sizeOf = ({ normalized }: { readonly normalized: number | null }) => Math.abs(normalized ?? 0);

const PREFIX = assumptionOf('' as MapPart);
const partOf = (group: string) => (group.startsWith(PREFIX) ? (group.slice(PREFIX.length) as MapPart) : undefined);

function isPlausible(freed: ReadonlySet<MapPart>, { model, values, diagnosis }: AdjustedView): boolean {
  return [...freed].every((part) => {
    const bounds = PLAUSIBLE[part];
    const first = indexOf(model, part);
    const size = model.parts.find(({ id }) => id === part)!.start.length;
    return bounds !== undefined && diagnosis.redundancy >= bounds.left && values.slice(first, first + size).every((value) => Math.abs(value) <= bounds.limit);
  });
}
