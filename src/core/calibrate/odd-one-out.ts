import { done, refused, type Result } from '../basics';
import { adjustView, type AdjustedView, type Pointed } from './adjust-view';
import type { Evidence } from './evidence';
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
/** Share of the worst test (in chi-square) below which a piece cannot be what is wrong. */
const NEAR_WORST = 0.1;
/** How far an assumption may be off before a misread size is the likelier story; and freedoms that must be left to prove it. */
const PLAUSIBLE: Partial<Record<MapPart, { readonly limit: number; readonly left: number }>> = {
  stretch: { limit: 0.06, left: 0 }, skew: { limit: 0.04, left: 0 }, tilt: { limit: 1.15, left: 1 }, lens: { limit: 0.6, left: 1 }, 'lens-centre': { limit: 0.12, left: 1 }, focal: { limit: Infinity, left: 1 },
};

/**
 * Data snooping by what each explanation leaves unexplained (the mean-shift model: leaving a piece out is giving it an unknown
 * error; Baarda 1968; Kok, On data snooping and multiple outlier testing, 1984). Assumptions are pieces like any other, and
 * give way first where they explain a contradiction as well as a piece does. Each round changes one thing, by an adjustment of
 * its own; what was changed too early is taken back.
 */
export function judgeEvidence(model: MapModel, evidence: readonly Evidence[], pointed: Pointed): Result<Judged> {
  const whole = adjustView(model, evidence, pointed, new Set());
  if (!whole.ok) return whole;
  const judged = judgeWith(isTold, whole.value, model, evidence, pointed);
  // Where evidence contradicts itself strongly, adjustments may creep: then one that has nearly settled is better than none.
  return judged.ok ? judged : judgeWith(isNearlyTold, whole.value, model, evidence, pointed);
}

function judgeWith(counts: (adjusted: AdjustedView) => boolean, whole: AdjustedView, model: MapModel, evidence: readonly Evidence[], pointed: Pointed): Result<Judged> {
  const told = new Map<string, Story | undefined>();
  const teller: Tell = (freed, aside, from) => {
    const key = [from ? ['near'] : ['far'], [...freed].sort(), [...aside].sort()].map((some) => some.join('\n')).join('\n\n');
    if (!told.has(key)) told.set(key, tellAnew(freed, aside, from));
    return told.get(key);
  };
  const tellAnew: Tell = (freed, aside, from) => {
    const view = adjustView(model, evidence.filter(({ id }) => !aside.has(id)), pointed, freed, from?.values);
    return view.ok && counts(view.value) && isPlausible(freed, view.value) ? { adjusted: view.value, freed, aside, cost: costOf(view.value) } : undefined;
  };
  const first: Story = { adjusted: whole, freed: new Set(), aside: new Set(), cost: counts(whole) ? costOf(whole) : Infinity };
  const best = overruled(bestStory(first, teller), teller);
  if (counts(best.adjusted)) return judgedFrom(best, evidence, teller);
  return refused(best.adjusted.solution.relationsHold ? 'fit-not-found' : 'evidence-contradicts');
}

const isTold = ({ solution }: AdjustedView) => solution.settled && solution.relationsHold;
const isNearlyTold = ({ solution }: AdjustedView) => solution.nearlySettled && solution.relationsHold;

const costOf = ({ solution, diagnosis }: AdjustedView) => solution.chiSquare - CRITICAL ** 2 * diagnosis.redundancy;

/** `from` is where the adjustment starts, without it from every slant. Undefined when the story cannot be told: undetermined, or not to be believed. */
type Tell = (freed: ReadonlySet<MapPart>, aside: ReadonlySet<string>, from?: AdjustedView) => Story | undefined;

const isSound = ({ adjusted }: Story) => Math.max(0, ...adjusted.diagnosis.groups.map(sizeOf)) < CRITICAL;

/** Assumptions that fail together, as they do in a slanted photo through a bowed lens; the likeliest first. */
const BEGINNINGS: readonly (readonly MapPart[])[] = [['tilt'], ['stretch', 'skew'], ['tilt', 'lens'], ['tilt', 'lens', 'lens-centre'], ['lens'], ['tilt', 'focal', 'lens', 'lens-centre']];

/** From where it stands first, which is quick; where that explains too little, or at the price of several words, from other ends. */
function bestStory(first: Story, tell: Tell): Story {
  const near = Number.isFinite(first.cost) ? improved(first, tell) : first;
  // One size less is quickly believed; a whole rectangle less is not, before a slant has been thought of.
  const lost = first.adjusted.diagnosis.redundancy - near.adjusted.diagnosis.redundancy;
  if (Number.isFinite(near.cost) && isSound(near) && (near.aside.size === 0 || lost <= 1)) return near;
  const far = findBeginning(first, tell);
  if (!far) return Number.isFinite(near.cost) ? near : improved(first, tell);
  const improvedFar = improved(withoutHaste(far, tell), tell);
  return withoutHaste(improvedFar.cost < near.cost - (near.freed.size > 0 ? 0 : MARGIN) ? improvedFar : near, tell);
}

/** An assumption that still fails its own test goes, where that makes the story sound. */
function overruled(story: Story, tell: Tell): Story {
  if (!Number.isFinite(story.cost) || isSound(story)) return story;
  const failing = story.adjusted.diagnosis.groups.filter((group) => sizeOf(group) >= CRITICAL).map(({ group }) => partOf(group)).filter((part) => part !== undefined);
  return bestOf(failing.map((part) => tell(new Set([...story.freed, part]), story.aside, story.adjusted)).filter((next) => next !== undefined && isSound(next)) as Story[]) ?? story;
}

/** The first beginning that explains everything, or else the cheapest. */
function findBeginning(first: Story, tell: Tell): Story | undefined {
  const held = listHeld(first);
  const told: Story[] = [];
  for (const parts of BEGINNINGS.filter((some) => some.every((part) => held.includes(part)))) {
    const story = tell(new Set(parts), new Set());
    if (story && isSound(story)) return story;
    if (story) told.push(story);
  }
  return bestOf(told);
}

function improved(first: Story, tell: Tell): Story {
  let story = first;
  for (let round = 0; round < 12 && !isSound(story); round++) {
    const next = bestOf(listNext(story, tell));
    if (!next || next.cost >= story.cost) break;
    story = withoutHaste(next, tell);
  }
  const swaps = listSwaps(story, tell);
  return swaps.length > 0 ? bestOf([story, ...swaps])! : story;
}

function judgedFrom(best: Story, evidence: readonly Evidence[], tell: Tell): Result<Judged> {
  const rivals = [...best.aside].flatMap((id) => listRivals(best, id, tell));
  const tied = rivals.filter(({ behind }) => behind < TIE).map(({ id }) => id);
  if (rivals.length === 0) return done({ adjusted: best.adjusted, freed: best.freed, suspects: [...best.aside], suspectsKept: false });
  // Nothing tells which of them is wrong: all stay in, and the contradiction widens the plus-minus.
  const suspects = [...new Set([...best.aside, ...tied])];
  const together = tell(best.freed, new Set(), best.adjusted) ?? tell(best.freed, new Set());
  if (!together && evidence.filter(({ id }) => suspects.includes(id)).every(isExact)) return refused('evidence-contradicts', { ids: suspects.join(',') });
  if (!together) return done({ adjusted: best.adjusted, freed: best.freed, suspects, suspectsKept: false });
  return done({ adjusted: together.adjusted, freed: together.freed, suspects, suspectsKept: true });
}

/** Relations without a plus-minus: two of them can contradict each other to the last digit. */
function isExact(piece: Evidence): boolean {
  const { sigma, sigmaDegrees } = piece as { sigma?: number; sigmaDegrees?: number };
  return sigma === undefined && sigmaDegrees === undefined;
}

const listHeld = ({ adjusted, freed }: Story) => adjusted.model.parts.filter(({ id, sigma }) => sigma && !freed.has(id)).map(({ id }) => id);

/** Every story that gives up one thing more, of the assumptions and pieces whose own tests come near the worst. */
function listNext(story: Story, tell: Tell): Story[] {
  const { adjusted, freed, aside } = story;
  const groups = [...adjusted.diagnosis.groups].sort((a, b) => sizeOf(b) - sizeOf(a));
  const suspects = groups.filter((group) => sizeOf(group) ** 2 > NEAR_WORST * sizeOf(groups[0]!) ** 2).slice(0, TRIED);
  return suspects.map(({ group }) => {
    const part = partOf(group);
    return part ? tell(new Set([...freed, part]), aside, adjusted) : tell(freed, new Set([...aside, group]), adjusted);
  }).filter((next) => next !== undefined);
}

/** Stories in which an assumption gives way in the place of a piece. */
function listSwaps(story: Story, tell: Tell): Story[] {
  const { adjusted, freed, aside } = story;
  return [...aside].flatMap((id) => listHeld(story).filter((part) => part !== 'lens-centre').map((part) => tell(new Set([...freed, part]), new Set([...aside].filter((other) => other !== id)), adjusted))).filter((swap) => swap !== undefined);
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
  // Exact relations that contradict each other cannot be told together: then whoever is left may be the wrong one.
  const from = tell(best.freed, others, best.adjusted)?.adjusted ?? best.adjusted;
  const worst = [...from.diagnosis.groups].filter(({ group }) => !partOf(group) && group !== id).sort((a, b) => sizeOf(b) - sizeOf(a)).slice(0, TRIED);
  return worst.flatMap(({ group }) => {
    const instead = tell(best.freed, new Set([...others, group]), from);
    return instead && instead.cost < best.cost + MARGIN ? [{ id: group, behind: instead.cost - best.cost }] : [];
  });
}

const sizeOf = ({ normalized }: { readonly normalized: number | null }) => Math.abs(normalized ?? 0);

const PREFIX = assumptionOf('' as MapPart);
const partOf = (group: string) => (group.startsWith(PREFIX) ? (group.slice(PREFIX.length) as MapPart) : undefined);

function isPlausible(freed: ReadonlySet<MapPart>, { model, values, diagnosis }: AdjustedView): boolean {
  // A lens that bows as it should has its middle where it should.
  if (freed.has('lens-centre') && !freed.has('lens')) return false;
  return [...freed].every((part) => {
    const bounds = PLAUSIBLE[part];
    const first = indexOf(model, part);
    const size = model.parts.find(({ id }) => id === part)!.start.length;
    return bounds !== undefined && diagnosis.redundancy >= bounds.left && values.slice(first, first + size).every((value) => Math.abs(value) <= bounds.limit);
  });
}
