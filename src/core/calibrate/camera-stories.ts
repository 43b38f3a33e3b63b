import { endsAlike } from './adjust-view';
import { firstNumberOf, leaningOf, type MapPart } from './models';
import type { Story, Teller } from './stories';

/** Tests of assumptions and pieces below this leave nothing to explain. */
export const AT_EASE = 2;
/** What may fail of a picture alone, and together, as in a slanted photo through a bowed lens. */
const ALONE: readonly (readonly MapPart[])[] = [['tilt'], ['stretch', 'skew'], ['lens']];
const TOGETHER: readonly (readonly MapPart[])[] = [
  ['tilt', 'lens'],
  ['tilt', 'lens', 'lens-centre'],
  ['tilt', 'focal', 'lens', 'lens-centre'],
];

export const sizeOf = ({ normalized }: { readonly normalized: number | null }) => Math.abs(normalized ?? 0);

export const worstOf = ({ adjusted }: Story) => Math.max(0, ...adjusted.diagnosis.groups.map(sizeOf));

export const listHeld = ({ adjusted, freed }: Story) =>
  adjusted.model.parts.filter(({ id, sigma }) => sigma && !freed.has(id)).map(({ id }) => id);

/** Stories about the camera alone: those that give up one thing, and more where these leave something to explain. */
export function listCameraStories(usual: Story, { tell, tellEveryWay }: Teller): Story[] {
  const held = listHeld(usual);
  const from = Number.isFinite(usual.cost) ? usual.adjusted : undefined;
  const tellOf = (parts: readonly MapPart[]) =>
    parts[0] === 'tilt'
      ? tellEveryWay(new Set(parts), new Set(), { from: from?.values })
      : [tell(new Set(parts), new Set(), from)].filter((story) => story !== undefined);
  const told = ALONE.filter((parts) => parts.every((part) => held.includes(part))).flatMap(tellOf);
  for (const parts of TOGETHER.filter((some) => some.every((part) => held.includes(part)))) {
    if (told.some((story) => worstOf(story) < AT_EASE)) break;
    const near = told
      .filter(({ freed }) => [...freed].every((part) => parts.includes(part)))
      .sort((a, b) => a.cost - b.cost)[0];
    const story = near && tell(new Set(parts), new Set(), near.adjusted);
    if (story) told.push(story);
  }
  return told;
}

/** Where a lean is begun: so many times as far as the usual story has it. */
const BEGUN = 3;

/**
 * A camera that was held nearly square-on, leaning the way that the usual story does or the other. Below one sigma of unease nothing speaks for it, and it weighs nothing; from two on it weighs as
 * any other story.
 */
export function listLeaning(usual: Story, { tellHeld }: Teller): Story[] {
  const { model, values } = usual.adjusted;
  const holding = leaningOf(model);
  const unease = Math.min(1, worstOf(usual) - (AT_EASE - 1));
  if (!holding || !Number.isFinite(usual.cost) || unease <= 0) return [];
  const first = firstNumberOf(model, 'tilt');
  const leaning = (times: number) => values.map((value, i) => (i === first || i === first + 1 ? times * value : value));
  const [one, other] = [BEGUN, -BEGUN].map((times) => tellHeld(holding, leaning(times)));
  return [one, other && one && endsAlike(one.adjusted, other.adjusted) ? undefined : other]
    .filter((story) => story !== undefined)
    .map((story) => ({ ...story, cost: story.cost - 2 * Math.log(unease) }));
}
