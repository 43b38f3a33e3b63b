import fc from 'fast-check';
import { distance, type Vec } from '../geometry';
import {
  addEvidence,
  addGuide,
  addOutline,
  addSheet,
  createJob,
  createView,
  cutView,
  mirrorView,
  movePoint,
  orderView,
  readJob,
  removeView,
  runCommand,
  setDatum,
  setFrame,
  setModel,
  shareFit,
  startHistory,
  turnView,
  type Command,
  type Evidence,
  type EvidencePoint,
  type Job,
  type Sheet,
  type View,
} from '../job';
import type { Outline, Place } from '../outline';
import { createDeriver } from '.';

const sheet: Sheet = {
  id: 's',
  name: 'plan',
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 10,
  width: 3000,
  height: 2000,
  kind: 'scan',
  taken: {},
};
const whole = createView('whole', sheet);
const box: View['frame'] = [
  [100, 100],
  [1400, 100],
  [1400, 1900],
  [100, 1900],
];
const part = (id: string): View => ({
  ...createView(id, sheet),
  frame: box,
  datum: { origin: [100, 1900], direction: 0 },
});
const length = (id: string, mm: number): Evidence => ({
  id,
  kind: 'length',
  groups: [[`${id}p`, `${id}q`]],
  said: { length: { value: mm, written: `${mm}` } },
  guess: false,
  role: 'use',
});
const ends = (id: string, a: Vec, b: Vec): EvidencePoint[] => [
  { id: `${id}p`, at: a, sigma: 0.5 },
  { id: `${id}q`, at: b, sigma: 0.5 },
];
const pointed = (x: number, y: number) => ({ kind: 'pointed', at: [x, y], sigma: 0.5 }) as const;

const run = (job: Job, ...commands: readonly Command[]): Job => commands.reduce(runCommand, startHistory(job)).job;
const job = run(
  createJob('j', 'Job', new Date(0)),
  addSheet(sheet, whole),
  addEvidence('whole', length('e', 200), ends('e', [500, 1000], [2500, 1010])),
);

describe('axes of a view', () => {
  const from = pointed(800, 900);
  const places: readonly Place[] = [
    from,
    { kind: 'shifted', from, by: [12, 5], seen: [920, 850] },
    { kind: 'aligned', from, angle: 0.4, to: pointed(1200, 700) },
    {
      kind: 'reach',
      from: { kind: 'shifted', from, by: [-3, 8], seen: [770, 820] },
      length: 20,
      towards: pointed(900, 300),
    },
  ];
  const chain: Outline = {
    shape: 'chain',
    id: 'o',
    plane: 'whole',
    layer: 'outline',
    closed: false,
    nodes: places.map((place, i) => ({ id: `n${i}`, place, smooth: false })),
    segments: places.slice(1).map(() => ({ kind: 'line' as const })),
  };
  const traced = run(
    job,
    addOutline(chain),
    addGuide({ id: 'g', plane: 'whole', through: from, angle: 0.3, offset: 4 }),
  );
  const onSheet = (of: Job) => {
    const derived = createDeriver()(of);
    const { toSheet } = derived.views.get('whole')!.fit;
    return derived.shapes
      .get('o')!
      .pieces.flatMap((piece) => (piece.kind === 'line' ? [toSheet(piece.a), toSheet(piece.b)] : []));
  };

  it('turn, and are seen from behind, and what was traced and typed stays where it is on the sheet', () => {
    const angle = fc.double({ min: -4, max: 4, noNaN: true });
    const change = fc.oneof(
      angle.map((by) => turnView('whole', by)),
      fc.constant(mirrorView('whole')),
      angle.map((direction) => setDatum('whole', { origin: [700, 600], direction })),
    );
    const before = onSheet(traced);
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 6 }), (changes) => {
        onSheet(run(traced, ...changes)).forEach((place, i) => expect(distance(place, before[i]!)).toBeLessThan(1e-6));
      }),
    );
  });

  it('turned clockwise by a quarter, what was on the left is at the top; from behind, left is right', () => {
    const across = (of: Job) => {
      const { toPlane } = createDeriver()(of).views.get('whole')!.fit;
      const [a, b] = [toPlane([500, 1000]), toPlane([2500, 1000])];
      return [b[0] - a[0], b[1] - a[1]].map((value) => Math.round(value) + 0);
    };
    expect(across(job)).toEqual([200, 0]);
    expect(across(run(job, turnView('whole', Math.PI / 2)))).toEqual([0, -200]);
    expect(across(run(job, mirrorView('whole')))).toEqual([-200, 0]);
    expect(across(run(job, mirrorView('whole'), turnView('whole', Math.PI / 2)))).toEqual([0, 200]);
    expect(across(run(job, turnView('whole', Math.PI / 2), mirrorView('whole')))).toEqual([0, -200]);
  });
});

describe('views of one sheet', () => {
  const cut = run(
    job,
    cutView({ ...part('left'), shares: 'whole' }),
    cutView(part('own')),
    addEvidence('own', length('f', 100), ends('f', [300, 300], [1300, 300])),
  );
  const lengthIn = (of: Job, view: string) => {
    const { fit } = createDeriver()(of).views.get(view)!;
    return distance(fit.toPlane([200, 200]), fit.toPlane([1300, 1500]));
  };

  it('share one fit, each on its own axes, and take what is known about either', () => {
    expect(lengthIn(cut, 'left')).toBe(lengthIn(cut, 'whole'));
    expect(lengthIn(cut, 'own')).not.toBe(lengthIn(cut, 'whole'));
    const level: Evidence = {
      id: 'l',
      kind: 'level',
      groups: [['lp', 'lq']],
      said: { angle: { value: 0, written: '0' } },
      guess: false,
      role: 'use',
    };
    const more = run(
      cut,
      addEvidence('left', level, ends('l', [400, 1200], [1200, 1240])),
      turnView('left', 0.5),
      setModel('left', 'similarity', 'none'),
    );
    expect(more.views.find(({ id }) => id === 'whole')!.evidence.map(({ id }) => id)).toEqual(['e', 'l']);
    const { fit } = createDeriver()(more).views.get('left')!;
    const { direction } = more.views.find(({ id }) => id === 'left')!.datum;
    const along = fit.toPlane([100 + 100 * Math.cos(direction), 1900 + 100 * Math.sin(direction)]);
    expect(along[1]).toBeCloseTo(0, 9);
    expect(along[0]).toBeCloseTo(10, 1);
  });

  it('part with a copy that changes no size, and when the one that knew goes, the knowledge stays', () => {
    const apart = run(cut, shareFit('left', undefined));
    expect(lengthIn(apart, 'left')).toBe(lengthIn(cut, 'left'));
    expect(lengthIn(run(apart, movePoint('left', { id: 'eq', at: [2600, 1010], sigma: 0.5 })), 'whole')).toBe(
      lengthIn(cut, 'whole'),
    );
    expect(lengthIn(run(cut, removeView('whole')), 'left')).toBe(lengthIn(cut, 'left'));
    expect(lengthIn(run(cut, shareFit('own', 'left')), 'own')).toBe(lengthIn(cut, 'whole'));
    for (const wrong of [shareFit('whole', 'left'), shareFit('own', 'nobody')]) expect(run(cut, wrong)).toEqual(cut);
  });

  it('are otherwise their own: refitting, cropping, turning or moving one leaves every other bit for bit', () => {
    const derive = createDeriver();
    const before = derive(cut);
    const changes = [
      movePoint('own', { id: 'fq', at: [1290, 310], sigma: 0.5 }),
      setFrame('own', undefined),
      turnView('own', 1),
      mirrorView('own'),
      setModel('own', 'affine', 'none'),
      orderView('own', 0),
    ];
    const changed = run(cut, ...changes);
    expect(changed.views[0]!.id).toBe('own');
    for (const id of ['whole', 'left']) {
      expect(derive(changed).views.get(id)).toBe(before.views.get(id));
      expect(changed.views.find((view) => view.id === id)).toBe(cut.views.find((view) => view.id === id));
    }
  });

  it('hang together when they are read, or are refused', () => {
    expect(readJob(JSON.parse(JSON.stringify(cut)))).toEqual({ ok: true, value: cut });
    const broken = {
      ...cut,
      views: cut.views.map((view) => (view.id === 'whole' ? { ...view, shares: 'left' } : view)),
    };
    expect(readJob(JSON.parse(JSON.stringify(broken)))).toMatchObject({ ok: false, code: 'job-damaged' });
  });
});
