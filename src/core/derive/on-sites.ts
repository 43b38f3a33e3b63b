import { polar } from '../geometry';
import type { Job } from '../job';
import { inOwn, type Outline, type Put } from '../outline';
import { add3, scale3, toSpace, type Pose } from '../space';
import type { Derived } from './derived';
import { listOnEdges, placedUnder, type Placed } from './on-edges';
import { sitedIn, sitingOf } from './sited';

type Standing = Pick<Job, 'layers' | 'outlines' | 'views' | 'sitings'>;
type Stands = Pick<Derived, 'views' | 'shapes' | 'arranged'>;

/** Every view that stands: among the others, on an edge of another, or under what is set on it. */
export function listStanding(job: Standing, derived: Stands): readonly Placed[] {
  const standing = [...derived.arranged.stands.values(), ...listOnEdges(job, derived), ...listUnderSited(job, derived)];
  return [...new Map([...standing].reverse().map((placed) => [placed.view, placed])).values()].reverse();
}

/** A site stands where it lies under the plan that is set on it, so that what stands with the plan stays as it is; and the plan itself, where it stands by nothing else. Of several plans the first that stands tells. */
export function listUnderSited(job: Standing, derived: Stands): readonly Placed[] {
  const { views, arranged } = derived;
  return job.sitings.flatMap((siting): readonly Placed[] => {
    const under = [...views.values()].find(({ view, fit }) => view.plane === siting.plane && fit.scaled)?.source;
    const plan = placedUnder(siting.of, { job, derived });
    if (!under || !plan || arranged.stands.has(under.id)) return [];
    const pose = beneath(plan.pose, sitedIn(siting, job, derived).put);
    return [{ view: under.id, pose, ...(plan.side ? { side: plan.side } : {}) }, plan];
  });
}

/** The pose of a plane on which another one, that has a pose, is set so. */
function beneath(pose: Pose, put: Put): Pose {
  const [c, s] = polar(1, put.turn);
  const along = (right: number, up: number) => add3(scale3(pose.x, right), scale3(pose.y, up));
  return { origin: toSpace(pose, inOwn(put, [0, 0])), x: along(c, -s), y: along(s, c) };
}

/** Whether an outline only shows once more what stands in space itself: a drawing of one of these planes that is set on another. */
export const isDrawnTwice =
  ({ sitings }: Pick<Job, 'sitings'>, standing: ReadonlySet<string>) =>
  (outline: Outline): boolean => {
    const siting = outline.shape === 'made' ? sitingOf(outline.recipe, sitings) : undefined;
    return siting !== undefined && standing.has(siting.of);
  };
