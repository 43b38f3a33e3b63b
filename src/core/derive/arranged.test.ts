/** Views of one thing in a job: they stand where they belong, one takes its scale from another, and what joins is wrong together. */
import { listDoubts, type FoundPart } from '../calibrate';
import { createRandom } from '../calibrate/simulation';
import { applied, distance, pieceLength, type Vec } from '../geometry';
import {
  addOutline,
  addFeature,
  addSheet,
  addSpan,
  createView,
  cutView,
  setSide,
  type Command,
  type Job,
  type View,
} from '../job';
import { jobOf } from '../job/for-tests';
import { listTurnedRound } from '../arrange';
import { drawnAt, type Drawn } from '../arrange/simulated';
import { DIRECTIONS, distance3, fromSpace, toSpace, type Vec3 } from '../space';
import type { Shape } from '../outline';
import {
  ALL,
  benchOf,
  CLICK,
  drawn,
  FRONT,
  joining,
  NOISELESS,
  RIGHT,
  sharedBy,
  sheetOf,
  shown,
  sized,
  THING,
  TOP,
  zero,
} from './bench-for-tests';
import { createDeriver, foldedViews, sharedIn, type FittedView } from '.';
import { measureEachOfShapes } from './figures';

/** Digits: what lies a little turned is pulled that much to lying level. */
const NEARLY = 1;
const derive = (job: Job) => createDeriver()(job);

it('a view without a size does not stand by itself, and takes its scale when it joins', () => {
  const alone = derive(benchOf());
  expect(alone.arranged.apart.get('side')?.why).toBe('without-scale');
  expect([...alone.arranged.stands.keys()]).toEqual(['front']);
  const nothing = derive(jobOf([...ALL.flatMap(shown), sharedBy(ALL, 'base', ['foot', 'end'], NOISELESS, 'up')]));
  expect(nothing.arranged.apart.get('front')?.why).toBe('nothing-sized');
  const together = derive(benchOf(NOISELESS, joining(...ALL)));
  expect([...together.arranged.stands.keys()]).toEqual(['front', 'side', 'plan']);
  for (const view of ALL) {
    const { fit } = together.views.get(view.id)!;
    const [p, q] = [THING.seat!, THING.back!].map((point) => fit.toPlane(drawnAt(view, point))) as [Vec, Vec];
    expect(distance(p, q)).toBeCloseTo(
      distance(drawnAt(view, THING.seat!), drawnAt(view, THING.back!)) * view.scale,
      NEARLY,
    );
  }
});

it('every place of every view stands where it is on the thing', () => {
  const { arranged, views } = derive(benchOf(NOISELESS, joining(...ALL)));
  for (const view of ALL)
    for (const point of Object.values(THING)) {
      const { pose } = arranged.stands.get(view.id)!;
      const at = toSpace(pose, views.get(view.id)!.fit.toPlane(drawnAt(view, point)));
      const { at: foot } = fromSpace(pose, point);
      expect(distance3(at, toSpace(pose, foot))).toBeLessThan(0.01);
    }
  DIRECTIONS.forEach((direction, axis) =>
    expect(arranged.coordinate('B', direction)?.value).toBeCloseTo(THING.back![axis]!, NEARLY),
  );
});

it('a view that does not join keeps its own fit bit for bit, and leaving gives it back', () => {
  const noise = createRandom(3).normal;
  const own = [sized(RIGHT, 'foot', 'back', 0.5, noise)];
  const job = benchOf(noise, own);
  const before = derive(job).views.get('side')!;
  const beside = derive(jobOf([...ALL.flatMap(shown), sized(FRONT, 'foot', 'end', 1, createRandom(3).normal), ...own]));
  expect(before.fit.values).toEqual(beside.views.get('side')!.fit.values);
  const deriver = createDeriver();
  const first = deriver(job);
  const there = deriver({ ...job, views: job.views.map((view) => ({ ...view, joins: true })) });
  expect(there.views.get('side')!.fit.values).not.toEqual(first.views.get('side')!.fit.values);
  const back = deriver(job);
  expect(back.views.get('side')!.fit.values).toEqual(first.views.get('side')!.fit.values);
});

it('what is left over is shown place by place, and a wrong size is named', () => {
  const noise = createRandom(5).normal;
  const more = [
    sized(RIGHT, 'foot', 'back', 0.5, noise, 1.04),
    sized(TOP, 'foot', 'back', 0.5, noise),
    addSpan({
      id: 'height',
      from: 'base',
      to: 'B',
      along: 'up',
      said: { value: 860, written: '860' },
      plusMinus: 1,
      guess: false,
      role: 'use',
    }),
  ];
  const { arranged, views } = derive(benchOf(noise, [...more, ...joining(...ALL)]));
  expect(views.get('side')!.fit.suspects).toEqual(['side-size']);
  expect(views.get('front')!.fit.suspects).toEqual([]);
  // No view turned round would put a wrong size right.
  expect(listTurnedRound(arranged.scene!)).toEqual([]);
  expect(arranged.spans.get('height')).toMatchObject({ suspect: false });
  expect(Math.abs(arranged.spans.get('height')!.difference!)).toBeLessThan(1.5);
  const grown = arranged.grown.get('side')!;
  expect(grown.by).toBeCloseTo(1 / 1.04 - 1, 2);
  expect(Math.abs(grown.by)).toBeGreaterThan(3 * grown.sigma);
  const left = [...arranged.stands.values()].flatMap(({ seen }) => seen.flatMap(({ off }) => off.map(({ mm }) => mm)));
  expect(left).toHaveLength(22);
  expect(Math.max(...left.map(Math.abs))).toBeLessThan(3);
});

it('views of one sheet share its size: none is asked of the others, and it counts once', () => {
  const [front, side] = [FRONT, { ...RIGHT, scale: FRONT.scale, zero: [2400, 2100] as const }];
  const noise = createRandom(8).normal;
  const job = jobOf([
    ...shown(front),
    cutView({
      ...createView('side', sheetOf('front')),
      datum: { origin: drawnAt(side, THING.foot!), direction: 0 },
      shares: 'front',
      side: 'right',
    }),
    sized(front, 'foot', 'end', 1, noise),
    sharedBy([front, side], 'base', ['foot', 'end'], noise, 'up', { said: { up: zero } }),
    sharedBy([front, side], 'seat', ['seat'], noise, 'up'),
    ...joining(front, side),
  ]);
  const { views, arranged } = derive(job);
  const [one, other] = ['front', 'side'].map((id) => views.get(id)!) as [FittedView, FittedView];
  expect(one.fit.covariance).toBe(other.fit.covariance);
  const scaleOf = ({ fit }: FittedView) => fit.parts.find(({ part }) => part === 'scale')!;
  expect(scaleOf(other)).toEqual(scaleOf(one));
  // One length of a sigma of 1 in 1,400 mm, and two clicks.
  const alone = scaleOf(derive(job).alone.get('front')!).sigmas[0]!;
  expect(scaleOf(one).sigmas[0]! / alone).toBeGreaterThan(0.98);
  // It alone shows how deep things lie: its zero is that of all.
  expect(arranged.stands.get('side')!.byZero).toEqual([]);
});

it('where the doubt of a view comes from is told of its own parts, among the numbers of all', () => {
  const job = benchOf(createRandom(4).normal, [
    sized(RIGHT, 'foot', 'back', 4, createRandom(6).normal),
    ...joining(...ALL),
  ]);
  const alone = derive(job).alone.get('side')!.fit;
  const { fit } = derive(job).views.get('side')!;
  const shares = ({ parts }: typeof fit) => parts.map(({ part, sigmas }) => [part, sigmas.length]);
  expect(shares(fit)).toEqual(expect.arrayContaining(shares(alone)));
  expect(fit.values.length).toBeGreaterThan(alone.values.length);
  const doubts = listDoubts(fit);
  // A scan without lens or stretch lies flat: what height is traced changes no length on it.
  expect(doubts.map(({ part }) => part)).toEqual(['height']);
  expect(doubts[0]!.share).toBeLessThan(0.01);
});

it('nothing is left over where all is as it is, from whatever side', () => {
  const round = [FRONT, drawn('far', 'back'), drawn('near', 'left', { scale: 0.7 }), drawn('under', 'bottom')];
  const { arranged } = derive(
    jobOf([
      ...round.flatMap(shown),
      sized(FRONT, 'foot', 'end', 1, NOISELESS),
      ...Object.keys(THING).map((name) => sharedBy(round, name, [name], NOISELESS)),
      ...joining(...round),
    ]),
  );
  const left = [...arranged.stands.values()].flatMap(({ seen }) => seen.flatMap(({ off }) => off.map(({ mm }) => mm)));
  expect(left).toHaveLength(32);
  expect(Math.max(...left.map(Math.abs))).toBeLessThan(0.05);
});

it('where two sizes contradict each other and nothing tells which is wrong, both stay and the plus-minus is wider', () => {
  const sizes = (wrong: number) => {
    const job = benchOf(createRandom(2).normal, [
      sized(RIGHT, 'foot', 'back', 0.5, createRandom(9).normal, wrong),
      ...joining(...ALL),
    ]);
    return derive(job);
  };
  const [agreeing, apart] = [sizes(1), sizes(1.04)];
  expect([agreeing.arranged.warnings, apart.arranged.warnings]).toEqual([[], ['evidence-disagrees']]);
  expect(apart.arranged.suspectsKept).toBe(true);
  for (const { id } of ALL) expect(apart.views.get(id)!.sigma! / agreeing.views.get(id)!.sigma!).toBeGreaterThan(3);
});

it.each(['auto', 'similarity'] as const)('one place each is enough for views of one sheet to stand (%s)', (model) => {
  const views = [FRONT, { ...RIGHT, scale: FRONT.scale, zero: [2400, 2100] as const }] as const;
  const scan = sheetOf('front');
  const viewOf = (view: Drawn, more: Partial<View>) => ({
    ...createView(view.id, scan),
    model,
    side: view.side,
    datum: { origin: drawnAt(view, THING.foot!), direction: 0 },
    ...more,
  });
  const { arranged } = derive(
    jobOf([
      addSheet(scan, viewOf(views[0], {})),
      cutView(viewOf(views[1], { shares: 'front' })),
      sized(views[0], 'foot', 'end', 1, NOISELESS),
      sharedBy(views, 'base', ['foot'], NOISELESS, 'up', { said: { up: zero } }),
      ...joining(...views),
    ]),
  );
  expect([arranged.refusal, [...arranged.stands.keys()]]).toEqual([undefined, ['front', 'side']]);
});

it('what is assumed of a sheet is assumed once for all views of it', () => {
  const views = [FRONT, { ...RIGHT, scale: FRONT.scale, zero: [2400, 2100] as const }] as const;
  const scan = sheetOf('front');
  const viewOf = (view: Drawn, more: Partial<View>) => ({
    ...createView(view.id, scan),
    side: view.side,
    datum: { origin: drawnAt(view, THING.foot!), direction: 0 },
    ...more,
  });
  const { alone, views: joined } = derive(
    jobOf([
      addSheet(scan, viewOf(views[0], {})),
      cutView(viewOf(views[1], { shares: 'front' })),
      sized(views[0], 'foot', 'end', 1, NOISELESS),
      sharedBy(views, 'base', ['foot', 'end'], NOISELESS, 'up', { said: { up: zero } }),
      ...joining(...views),
    ]),
  );
  const [before, after] = [alone, joined].map((all) => all.get('side')!.fit.parts) as [FoundPart[], FoundPart[]];
  expect(joined.get('side')).not.toBe(alone.get('side'));
  expect(before.filter(({ from }) => from === 'assumed').length).toBeGreaterThan(0);
  for (const { part, sigmas } of before)
    sigmas.forEach((sigma, i) =>
      expect(after.find((other) => other.part === part)!.sigmas[i]! / sigma).toBeGreaterThan(0.97),
    );
});

it('what nothing says is said: there a view stands by its own zero', () => {
  const { arranged } = derive(
    jobOf([
      ...ALL.flatMap(shown),
      ...ALL.map((view) => sized(view, 'foot', 'back', 1, NOISELESS)),
      sharedBy(ALL, 'base', ['foot', 'end'], NOISELESS, 'up'),
      sharedBy([FRONT, TOP], 'middle', ['seat'], NOISELESS, 'across'),
    ]),
  );
  expect(ALL.map(({ id }) => arranged.stands.get(id)?.byZero)).toEqual([[], [], ['deep']]);
  expect(arranged.coordinate('base', 'up')?.value).toBeCloseTo(0, NEARLY);
  expect(arranged.coordinate('middle', 'across')?.value).toBeCloseTo(THING.seat![0], NEARLY);
});

it('figures across views are as sure as is said: coordinates, and lines traced in a view that took its scale from others', () => {
  const [trials, figures] = [120, 5];
  let sum = 0;
  for (let trial = 1; trial <= trials; trial++) {
    const noise = createRandom(1000 + trial).normal;
    const traced = [RIGHT, TOP].map((view) =>
      addOutline({
        shape: 'chain',
        id: `${view.id}-line`,
        layer: 'outline',
        plane: view.id,
        closed: false,
        nodes: ['seat', 'back'].map((name) => {
          const [x, y] = drawnAt(view, THING[name]!);
          const at: Vec = [x + CLICK * noise(), y + CLICK * noise()];
          return { id: `${view.id}-${name}`, place: { kind: 'pointed', at, sigma: CLICK }, smooth: false };
        }),
        segments: [{ kind: 'line' }],
      }),
    );
    const job = benchOf(noise, [...traced, ...joining(...ALL)]);
    const figured = { job, derived: derive(job) };
    const lengthIn = (shapes: ReadonlyMap<string, Shape>, id: string) => pieceLength(shapes.get(id)!.finished[0]!);
    const both = measureEachOfShapes(
      job.outlines,
      figured,
      (shapes) =>
        [lengthIn(shapes, 'side-line'), lengthIn(shapes, 'side-line') - lengthIn(shapes, 'plan-line')] as const,
    );
    const lengthIs = (view: Drawn) => distance(drawnAt(view, THING.seat!), drawnAt(view, THING.back!)) * view.scale;
    const truths = [lengthIs(RIGHT), lengthIs(RIGHT) - lengthIs(TOP)];
    const placed = DIRECTIONS.map(
      (direction, axis) => [figured.derived.arranged.coordinate('B', direction)!, THING.back![axis]!] as const,
    );
    for (const [{ value, sigma }, truth] of [...both.map((measured, i) => [measured, truths[i]!] as const), ...placed])
      sum += ((value - truth) / sigma) ** 2;
  }
  // One on average; the five hang together.
  expect(sum / (trials * figures)).toBeGreaterThan(0.7);
  expect(sum / (trials * figures)).toBeLessThan(1.3);
});

it('laid out, what the views share runs on from one to the next; folded up, every place lies where the thing has it', () => {
  const job = { ...benchOf(NOISELESS, joining(...ALL)), projection: 'third' as const };
  const derived = derive(job);
  const lookOf = (fold: number, turn = 0, tip = 0) =>
    new Map(
      foldedViews({ job, derived }, { fold, turn, tip }).map(({ fitted, look }) => [
        fitted.source.id,
        (view: Drawn, point: Vec3) => applied(look, fitted.fit.toPlane(drawnAt(view, point))),
      ]),
    );
  const flat = lookOf(0);
  for (const point of Object.values(THING)) {
    const [front, side, plan] = ALL.map((view) => flat.get(view.id)!(view, point)) as [Vec, Vec, Vec];
    expect(side[1]).toBeCloseTo(front[1], NEARLY);
    expect(plan[0]).toBeCloseTo(front[0], NEARLY);
    expect(side[0]).toBeGreaterThan(front[0]);
    expect(plan[1]).toBeGreaterThan(front[1]);
  }
  // What is nearest is drawn last.
  const orderOf = (turn: number) =>
    foldedViews({ job, derived }, { fold: 1, turn, tip: 0 }).map(({ fitted }) => fitted.source.id);
  expect([orderOf(0).at(-1), orderOf(Math.PI / 2).at(-1), orderOf(Math.PI)[0]]).toEqual(['front', 'side', 'front']);
  // From the right one looks at the side alone, from above at the plan.
  const [fromRight, fromAbove] = [lookOf(1, Math.PI / 2), lookOf(1, 0, Math.PI / 2)];
  const [foot, end] = [THING.foot!, THING.end!];
  const across = (look: ReturnType<typeof lookOf>, view: Drawn) =>
    distance(look.get(view.id)!(view, foot), look.get(view.id)!(view, end));
  expect(across(fromRight, RIGHT)).toBeCloseTo(520, 0);
  expect(across(fromRight, FRONT)).toBeLessThan(0.1);
  expect(across(fromAbove, TOP)).toBeCloseTo(Math.hypot(1400, 520), 0);
});

it('a shared line stands in every view that has its direction, also where nobody pointed at it', () => {
  const job = benchOf(NOISELESS, [
    addFeature({
      id: 'seat',
      name: 'seat',
      along: 'up',
      said: {},
      seen: [{ id: 'seat-1', view: 'front', at: drawnAt(FRONT, THING.seat!), sigma: CLICK }],
    }),
    ...joining(...ALL),
  ]);
  const derived = derive(job);
  const markIn = (view: Drawn) =>
    sharedIn(derived.views.get(view.id)!, { job, derived }).find(({ feature }) => feature.id === 'seat');
  for (const view of [FRONT, RIGHT]) {
    const { line, value } = markIn(view)!;
    const { fit } = derived.views.get(view.id)!;
    const [x, y] = fit.toPlane(drawnAt(view, THING.seat!));
    const share = (x - line!.a[0]) / (line!.b[0] - line!.a[0]);
    expect(line!.a[1] + share * (line!.b[1] - line!.a[1])).toBeCloseTo(y, NEARLY);
    expect(value!.value).toBeCloseTo(430, NEARLY);
  }
  expect(markIn(TOP)).toBeUndefined();
});

it('a side view that is mirrored, or said to be seen from the wrong side, is found; nothing is said where all agrees', () => {
  const noise = createRandom(21).normal;
  const wrong = { ...RIGHT, side: 'left' as const };
  const job = (more: readonly Command[]) =>
    jobOf([
      ...[FRONT, wrong, TOP].flatMap(shown),
      setSide('side', 'right'),
      ...ALL.map((view) => sized(view, 'foot', 'back', 0.5, noise)),
      sharedBy([FRONT, wrong], 'base', ['foot', 'end'], noise, 'up'),
      ...['foot', 'back', 'end'].map((name) => sharedBy([FRONT, wrong, TOP], name, [name], noise)),
      ...more,
    ]);
  const doubted = derive(job([])).arranged;
  const found = listTurnedRound(doubted.scene!);
  expect(doubted.isDoubted).toBe(true);
  expect(found[0]).toEqual({ view: 'side', side: 'left' });
  // Turned round the front would contradict all others.
  expect(found.map(({ view }) => view)).not.toContain('front');
  const right = derive(job([setSide('side', 'left')])).arranged;
  expect([right.isDoubted, right.warnings]).toEqual([false, []]);
});
