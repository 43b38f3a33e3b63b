/** Views that are fitted together somewhere else: shown as pending meanwhile, and the same to the last bit once it is told. */
import { createRandom } from '../calibrate/simulation';
import type { Job } from '../job';
import { createDeriver, NOTHING_TOLD, toldIn, toldOfScene, type Derived, type ToldOfJob } from '.';
import { ALL, benchOf, joining, RIGHT, sized } from './bench-for-tests';

const noise = createRandom(3).normal;
const job = benchOf(noise, [sized(RIGHT, 'foot', 'back', 1, noise), ...joining(...ALL)]);
/** One place pointed at a little beside. */
const moved = { ...job, features: job.features.map((feature, i) => (i === 1 ? nudged(feature) : feature)) };

function nudged(feature: Job['features'][number]): Job['features'][number] {
  const [first, ...others] = feature.seen;
  return { ...feature, seen: [{ ...first!, at: [first!.at[0] + 3, first!.at[1]] }, ...others] };
}

/** What a worker makes of what is pending: messages keep no objects. */
const answered = ({ arranged }: Derived): ToldOfJob => ({
  ...NOTHING_TOLD,
  scenes: new Map(arranged.pending.map((scene) => [scene, structuredClone(toldOfScene(structuredClone(scene)))])),
});

/** Everything that a screen or a file reads off the views, digit by digit. */
const readOff = ({ views, arranged }: Derived) =>
  JSON.stringify({
    maps: [...views.values()].map(({ fit, sigma, figures }) => [fit.map, sigma, [...figures]]),
    stands: [...arranged.stands.values()],
    grown: [...arranged.grown],
    spans: [...arranged.spans],
    base: arranged.coordinate('base', 'up'),
    places: [...views.keys()].map((view) =>
      arranged.among(view)?.withPoints(['seen:A-front-foot'].filter(() => view === 'front')),
    ),
  });

it('what was told makes the same of all views, to the last bit', () => {
  const derive = createDeriver({ mostTogether: 1 });
  const pending = derive(job);
  expect(pending.arranged.pending).toHaveLength(1);
  const told = derive(job, answered(pending));
  expect(told.arranged.pending).toEqual([]);
  expect(readOff(told)).toEqual(readOff(createDeriver()(job)));
});

it('while it is pending a view shows its own fit, or the last one, and says that it is', () => {
  const derive = createDeriver({ mostTogether: 1 });
  const first = derive(job);
  expect([...first.views.values()].map(({ isPending }) => isPending)).toEqual([true, true, true]);
  // Nothing was fitted yet: each as its own evidence leaves it.
  expect(first.views.get('side')!.fit.values).toEqual(first.alone.get('side')!.fit.values);
  expect([...first.arranged.apart.values()].map(({ why }) => why)).toEqual(['pending', 'pending', 'pending']);
  const told = derive(job, answered(first));
  const next = derive(moved, answered(first));
  expect(next.arranged.pending).toHaveLength(1);
  expect([...next.views.values()].map(({ isPending }) => isPending)).toEqual([true, true, true]);
  expect([...next.views.values()].map(({ fit }) => fit.map)).toEqual(
    [...told.views.values()].map(({ fit }) => fit.map),
  );
  const settled = derive(moved, answered(next));
  expect(readOff(settled)).toEqual(readOff(createDeriver()(moved)));
  expect(readOff(settled)).not.toEqual(readOff(told));
});

it('what needs less than may be done at once is never pending', () => {
  const derived = createDeriver({ mostTogether: 1000 })(job);
  expect([derived.arranged.pending, readOff(derived)]).toEqual([[], readOff(createDeriver()(job))]);
});

it('what agrees is shown at once where there is only enough for that; what contradicts is shown with all of it until it is judged', () => {
  const wrong = benchOf(noise, [sized(RIGHT, 'foot', 'back', 1, noise, 1.2), ...joining(...ALL)]);
  const derive = createDeriver({ mostTogether: 60 });
  expect(derive(job).arranged.pending).toEqual([]);
  const pending = derive(wrong);
  expect([pending.arranged.pending.length, pending.views.get('side')!.fit.suspects]).toEqual([1, []]);
  // Nothing is called wrong before it is judged.
  expect(pending.arranged.isDoubted).toBe(false);
  const told = derive(wrong, answered(pending));
  expect([told.arranged.isDoubted, readOff(told)]).toEqual([true, readOff(createDeriver()(wrong))]);
  expect(createDeriver()(wrong).arranged.isDoubted).toBe(true);
});

it('a name asks nothing new, and another deriver takes over what one has come to', () => {
  const before = createDeriver()(job);
  const other = createDeriver({ mostTogether: 1 })({ ...job, name: 'Other' }, toldIn(before));
  expect([other.arranged.pending, readOff(other)]).toEqual([[], readOff(before)]);
  const derive = createDeriver({ mostTogether: 1 });
  const told = answered(derive(job));
  const renamed = { ...job, features: job.features.map((feature) => ({ ...feature, name: `${feature.name} line` })) };
  expect(derive(job, told).arranged.pending).toEqual([]);
  expect(derive(renamed, told).arranged.pending).toEqual([]);
});

it('nothing of what is pending is told', () => {
  expect([...toldIn(createDeriver({ mostTogether: 1 })(job)).scenes]).toEqual([]);
  expect(toldIn(createDeriver()(job)).scenes.size).toBe(1);
});
