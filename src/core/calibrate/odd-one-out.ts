import { done, refused, type Result } from '../basics';
import { adjustView, HASTY, type AdjustedView, type Patience } from './adjust-view';
import type { Pointed } from './view-problem';
import type { Observation } from './evidence';
import { AT_EASE, listCameraStories, listHeld, listLeaning, sizeOf, worstOf } from './camera-stories';
import { assumptionOf, type MapModel, type MapPart } from './models';
import {
  costOf,
  createTeller,
  CRITICAL,
  weighsAssumptions,
  type Allowance,
  type Story,
  type Tell,
  type Teller,
} from './stories';

/** What does not belong: pieces left aside or under suspicion, and assumptions that the evidence has overruled. */
export interface Judged {
  readonly adjusted: AdjustedView;
  /** Everything that was judged, suspects and all. */
  readonly evidence: readonly Observation[];
  readonly freed: ReadonlySet<MapPart>;
  /** Ids of the pieces that do not belong with the others. */
  readonly suspects: readonly string[];
  /** Whether the suspects are still in the reported fit: they are when nothing tells which of them is wrong. */
  readonly suspectsKept: boolean;
  /** Other ways in which the picture can have been taken that cannot be told from this one, with what they weigh beside its one. */
  readonly others: readonly Weighed[];
  /** What the story costs: of two sets of evidence that say the same, the one with less is the likelier. */
  readonly cost: number;
}

export interface Weighed {
  readonly adjusted: AdjustedView;
  readonly freed: ReadonlySet<MapPart>;
  readonly weight: number;
}

/** Two stories whose costs are closer than the first leave it open which is true; closer than the second, both are named. */
const MARGIN = 6;
const TIE = 0.5;
/** Pieces that are tried in one round: the ones whose tests are worst. */
const TRIED = 8;
/** Of these so many first: when one of them explains everything, the others are let be. */
const TRIED_FIRST = 4;
/** Share of the worst test (in chi-square) below which a piece cannot be what is wrong. */
const NEAR_WORST = 0.1;
/** What an assumption costs at the most that fails every day (−2 times the logarithm of its odds). */
const COMMON = 3;
/** Stories that cost this much more than the best one weigh nothing beside it. */
const WEIGHTLESS = 8;

/** Odds of every other story beside the best one; they fade to nothing without a step. */
function listWeighed(best: Story, others: readonly Story[]): Weighed[] {
  const shift = Math.exp(-WEIGHTLESS / 2);
  return others
    .filter((story) => story !== best && story.cost < best.cost + WEIGHTLESS)
    .map(({ adjusted, freed, cost }) => ({ adjusted, freed, weight: Math.exp((best.cost - cost) / 2) - shift }));
}

/** `quick`: what does not settle within a few steps is not followed. `allowance`: what all of it may cost; what is left of it says whether everything was told. */
export interface Judging {
  readonly quick?: boolean;
  readonly allowance?: Allowance | undefined;
}

/**
 * Data snooping by what each explanation leaves unexplained (the mean-shift model: leaving a piece out is giving it an unknown
 * error; Baarda 1968; Kok, On data snooping and multiple outlier testing, 1984). Assumptions are pieces like any other, and where all of them are weighed (auto) every
 * story about the camera is told before one about a piece. Each round changes one thing, by an adjustment of
 * its own; what was changed too early is taken back.
 */
export function judgeEvidence(
  model: MapModel,
  evidence: readonly Observation[],
  pointed: Pointed,
  { quick = false, allowance }: Judging = {},
): Result<Judged> {
  const efforts = quick
    ? [{ ...QUICK, hasty: false }]
    : weighsAssumptions(model)
      ? [QUICK, LENIENT]
      : [THOROUGH, LENIENT];
  let judged: Result<Judged> = refused('fit-not-found');
  for (const effort of efforts) {
    const whole = adjustView(model, evidence, pointed, new Set(), undefined, effort);
    if (!whole.ok) return whole;
    judged = judgeWith(effort, whole.value, model, evidence, pointed, allowance);
    if (judged.ok || allowance?.isSpent) break;
  }
  return judged.ok || !allowance?.isSpent ? judged : unjudged(model, evidence, pointed);
}

/** All pieces together, where what does not belong may not be sought any longer. */
function unjudged(model: MapModel, evidence: readonly Observation[], pointed: Pointed): Result<Judged> {
  const whole = adjustView(model, evidence, pointed, new Set(), undefined, QUICK);
  if (!whole.ok) return whole;
  return done({
    adjusted: whole.value,
    evidence,
    freed: new Set(),
    suspects: [],
    suspectsKept: false,
    others: [],
    cost: Infinity,
  });
}

/** How far stories are followed. */
interface Effort extends Patience {
  /** Whether a more patient one follows. */
  readonly hasty?: boolean;
  counts(adjusted: AdjustedView): boolean;
}

const isTold = ({ solution }: AdjustedView) => solution.settled && solution.relationsHold;
const QUICK: Effort = { ...HASTY, hasty: true, counts: isTold };
const THOROUGH: Effort = { counts: isTold };
/** Where evidence contradicts itself strongly, adjustments may creep: then one that has nearly settled is better than none. */
const LENIENT: Effort = { counts: ({ solution }) => solution.nearlySettled && solution.relationsHold };

function judgeWith(
  { counts, hasty = false, ...patience }: Effort,
  whole: AdjustedView,
  model: MapModel,
  evidence: readonly Observation[],
  pointed: Pointed,
  allowance: Allowance | undefined,
): Result<Judged> {
  const teller = createTeller(model, evidence, pointed, counts, patience, allowance);
  const { tell } = teller;
  const usual: Story = {
    adjusted: whole,
    freed: new Set(),
    aside: new Set(),
    cost: counts(whole) ? costOf(whole, new Set()) : Infinity,
  };
  const {
    best,
    others,
    isHasty = false,
  }: Chosen = weighsAssumptions(model)
    ? weighed(usual, teller)
    : { best: overruled(improved(usual, tell), tell), others: [] };
  if (hasty && isHasty) return refused('fit-not-found');
  if (counts(best.adjusted)) return judgedFrom(best, others, evidence, tell);
  return refused(best.adjusted.solution.relationsHold ? 'fit-not-found' : 'evidence-contradicts');
}

const isSound = (story: Story) => worstOf(story) < CRITICAL;

/** A story and those beside it; hasty where a piece is blamed while nothing about the camera could be told to its end. */
interface Chosen {
  readonly best: Story;
  readonly others: readonly Story[];
  readonly isHasty?: boolean;
}

/** The best story where all assumptions are weighed, and those beside it: about the camera, unless a piece that is wrong explains clearly more. */
function weighed(usual: Story, teller: Teller): Chosen {
  const leaning = listLeaning(usual, teller);
  if (worstOf(usual) < AT_EASE && Number.isFinite(usual.cost))
    return { best: cheapest([usual, ...leaning]), others: [usual, ...leaning] };
  const cameras = [usual, ...leaning, ...listCameraStories(usual, teller)].filter(({ cost }) => Number.isFinite(cost));
  const sound = cameras.filter(isSound);
  const camera = sound.length > 0 ? cheapest(sound) : cameras.length > 0 ? cheapest(cameras) : usual;
  const asCamera = { best: camera, others: cameras };
  if (isSound(camera) && (isCommon(camera) || camera.cost < leastCostOfPiece(camera) + MARGIN)) return asCamera;
  const piece = withoutHaste(
    improved(cheapest([camera, ...listPieceStories(camera, usual, teller)]), teller.tell),
    teller.tell,
  );
  return piece.cost < camera.cost - (isSound(camera) ? MARGIN : 0)
    ? { best: piece, others: [], isHasty: cameras.length === 0 }
    : asCamera;
}

/** A picture that was taken from aside, or a copy that is stretched, is nothing rare: when that explains everything, no word is doubted. */
const isCommon = ({ adjusted, freed }: Story) =>
  adjusted.model.parts.every(({ id, unusual }) => !freed.has(id) || (unusual !== undefined && unusual.cost <= COMMON));

/** So many conditions more than unknowns are not all met by chance. */
const PROVEN = 8;
/** Whether a picture as it usually is explains everything that is left: then nothing speaks of a side that it was taken from. */
const explainsAll = (story: Story) =>
  story.freed.size === 0 && worstOf(story) < AT_EASE && story.adjusted.diagnosis.redundancy >= PROVEN;

/**
 * Stories that leave one piece out: of a picture as it usually is and, where none of these explains everything, of one taken from any side where that could still cost less.
 */
function listPieceStories(camera: Story, usual: Story, { tell, tellEveryWay }: Teller): Story[] {
  const canSlant = listHeld(usual).includes('tilt');
  // Evidence that contradicts itself strongly settles under no story: then its tests say who to look at, and no more.
  const settles = Number.isFinite(usual.cost);
  const isEnough = (i: number, stories: readonly Story[]) => i >= TRIED_FIRST && stories.some(isSound);
  const suspects = listSuspects([usual, camera]);
  const told: Story[] = [];
  for (const [i, id] of suspects.entries()) {
    if (isEnough(i, told)) break;
    const aside = new Set([id]);
    const near = [
      ...(settles ? [tell(new Set(), aside)] : []),
      ...(camera === usual || (canSlant && isSlant(camera)) ? [] : [tell(camera.freed, aside, camera.adjusted)]),
    ];
    told.push(...near.filter((story) => story !== undefined));
  }
  if (!canSlant || told.some(explainsAll)) return told;
  for (const [i, id] of suspects.entries()) {
    if (isEnough(i, told)) break;
    const room = Math.min(...told.map(({ cost }) => cost)) - leastCostWithout(usual, id);
    if (room > 0) told.push(...tellEveryWay(SLANT, new Set([id]), { room }));
  }
  return told;
}

const SLANT: ReadonlySet<MapPart> = new Set(['tilt']);
const isSlant = ({ freed }: Story) => freed.size === 1 && freed.has('tilt');

/** What a story without a piece costs at the least, were nothing left to explain: a piece of many places that are looked at anew is a lot to give up. */
function leastCostWithout({ adjusted: { solution, diagnosis } }: Story, id: string): number {
  const rows = solution.linearization.rows.filter(({ condition }) => condition.group === id).length;
  const own = [...solution.layout.unknown.keys()]
    .filter((block) => block.startsWith(`${id}:`))
    .reduce((sum, block) => sum + solution.values.get(block)!.length, 0);
  return -(CRITICAL ** 2) * (diagnosis.redundancy - (rows - own));
}

/** Pieces whose tests are worst under one of the stories. */
function listSuspects(stories: readonly Story[]): string[] {
  const worst = new Map<string, number>();
  for (const { adjusted } of stories)
    for (const group of adjusted.diagnosis.groups)
      if (!partOf(group.group)) worst.set(group.group, Math.max(worst.get(group.group) ?? 0, sizeOf(group)));
  return [...worst]
    .sort((a, b) => b[1] - a[1])
    .slice(0, TRIED)
    .map(([id]) => id);
}

/** No story that leaves a piece out can cost less. */
const leastCostOfPiece = ({ adjusted }: Story) => CRITICAL ** 2 * (1 - adjusted.diagnosis.redundancy);

const cheapest = (stories: readonly Story[]) =>
  stories.reduce((best, story) => (story.cost < best.cost ? story : best));

/** An assumption that still fails its own test goes, where that makes the story sound. */
function overruled(story: Story, tell: Tell): Story {
  if (!Number.isFinite(story.cost) || isSound(story)) return story;
  const failing = story.adjusted.diagnosis.groups
    .filter((group) => sizeOf(group) >= CRITICAL)
    .map(({ group }) => partOf(group))
    .filter((part) => part !== undefined);
  return (
    bestOf(
      failing
        .map((part) => tell(new Set([...story.freed, part]), story.aside, story.adjusted))
        .filter((next) => next !== undefined && isSound(next)) as Story[],
    ) ?? story
  );
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

function judgedFrom(
  best: Story,
  others: readonly Story[],
  evidence: readonly Observation[],
  tell: Tell,
): Result<Judged> {
  const alone = {
    adjusted: best.adjusted,
    evidence,
    freed: best.freed,
    cost: best.cost,
    suspectsKept: false,
    others: listWeighed(best, others),
  };
  const rivals = [...best.aside].flatMap((id) => listRivals(best, id, tell));
  const tied = rivals.filter(({ behind }) => behind < TIE).map(({ id }) => id);
  if (rivals.length === 0) return done({ ...alone, suspects: [...best.aside] });
  // Nothing tells which of them is wrong: all stay in, and the contradiction widens the plus-minus.
  const suspects = [...new Set([...best.aside, ...tied])];
  const together = tell(best.freed, new Set(), best.adjusted) ?? tell(best.freed, new Set());
  if (!together && evidence.filter(({ id }) => suspects.includes(id)).every(isExact))
    return refused('evidence-contradicts', { ids: suspects.join(',') });
  if (!together) return done({ ...alone, suspects });
  return done({
    adjusted: together.adjusted,
    evidence,
    freed: together.freed,
    cost: together.cost,
    suspects,
    suspectsKept: true,
    others: [],
  });
}

/** Relations without a plus-minus: two of them can contradict each other to the last digit. */
function isExact(piece: Observation): boolean {
  const { sigma, sigmaDegrees } = piece as { sigma?: number; sigmaDegrees?: number };
  return sigma === undefined && sigmaDegrees === undefined;
}

/** Every story that gives up one thing more, of the assumptions and pieces whose own tests come near the worst. */
function listNext(story: Story, tell: Tell): Story[] {
  const { adjusted, freed, aside } = story;
  const groups = [...adjusted.diagnosis.groups].sort((a, b) => sizeOf(b) - sizeOf(a));
  const suspects = groups.filter((group) => sizeOf(group) ** 2 > NEAR_WORST * sizeOf(groups[0]!) ** 2).slice(0, TRIED);
  return suspects
    .map(({ group }) => {
      const part = partOf(group);
      return part
        ? tell(new Set([...freed, part]), aside, adjusted)
        : tell(freed, new Set([...aside, group]), adjusted);
    })
    .filter((next) => next !== undefined);
}

/** Stories in which an assumption gives way in the place of a piece. */
function listSwaps(story: Story, tell: Tell): Story[] {
  const { adjusted, freed, aside } = story;
  return [...aside]
    .flatMap((id) =>
      listHeld(story)
        .filter((part) => part !== 'lens-centre')
        .map((part) => tell(new Set([...freed, part]), new Set([...aside].filter((other) => other !== id)), adjusted)),
    )
    .filter((swap) => swap !== undefined);
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
  const worst = [...from.diagnosis.groups]
    .filter(({ group }) => !partOf(group) && group !== id)
    .sort((a, b) => sizeOf(b) - sizeOf(a))
    .slice(0, TRIED);
  return worst.flatMap(({ group }) => {
    const instead = tell(best.freed, new Set([...others, group]), from);
    return instead && instead.cost < best.cost + MARGIN ? [{ id: group, behind: instead.cost - best.cost }] : [];
  });
}

const PREFIX = assumptionOf('' as MapPart);
const partOf = (group: string) => (group.startsWith(PREFIX) ? (group.slice(PREFIX.length) as MapPart) : undefined);
