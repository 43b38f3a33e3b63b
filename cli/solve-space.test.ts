/** Problems in space as other programs ask them. */
import { createRandom } from '../src/core/calibrate/simulation';
import { drawnAt, type Drawn } from '../src/core/arrange/simulated';
import type { Vec3 } from '../src/core/space';
import { solveProblem } from './solve';

/** A nest box of 150 × 180 × 250 mm, as drawn from three sides. */
const THING: Readonly<Record<string, Vec3>> = {
  A: [0, 0, 0],
  B: [150, 0, 0],
  C: [0, 180, 0],
  D: [0, 0, 250],
  E: [150, 180, 250],
  F: [90, 40, 210],
};
const DRAWN: readonly Omit<Drawn, 'sized'>[] = [
  { id: 'front', side: 'front', scale: 0.1, turn: 0.01, zero: [400, 2900] },
  { id: 'right', side: 'right', scale: 0.13, turn: -0.02, zero: [700, 2600] },
  { id: 'top', side: 'top', scale: 0.1, turn: 0.015, zero: [500, 2700] },
];
type Json = Record<string, unknown>;

function problem(change: Json = {}, seed?: number): Json {
  const random = seed === undefined ? undefined : createRandom(seed);
  const off = () => (random ? random.normal() : 0);
  return {
    name: 'nest box',
    kind: 'space',
    views: DRAWN.map((view) => ({
      id: view.id,
      image: { width: 3000, height: 3200 },
      sheet: 'scan',
      model: 'similarity',
      lens: 'none',
      side: view.side,
      points: Object.fromEntries(
        Object.entries(THING).map(([name, point]) => {
          const [x, y] = drawnAt(view, point);
          return [name.toLowerCase(), [x + off(), y + off()]];
        }),
      ),
      evidence: [],
    })),
    features: Object.fromEntries(
      Object.keys(THING).map((name) => [
        name,
        { seen: Object.fromEntries(DRAWN.map(({ id }) => [id, [name.toLowerCase()]])) },
      ]),
    ),
    evidence: [
      { id: 'w', kind: 'distance', along: 'across', from: 'A', to: 'B', mm: 150, sigma: 0.2 },
      { id: 'd', kind: 'distance', along: 'deep', from: 'A', to: 'C', mm: 180, sigma: 0.2 },
      { id: 'h', kind: 'distance', along: 'up', from: 'A', to: 'D', mm: 250, sigma: 0.2 },
    ],
    ask: { distances: [['A', 'E']] },
    ...change,
  };
}
const feature = (id: string, change: Json) => {
  const { features } = problem() as { features: Record<string, Json> };
  return { features: { ...features, [id]: { ...features[id], ...change } } };
};
const view = (id: string, change: Json) => ({
  views: (problem() as { views: Json[] }).views.map((each) => (each.id === id ? { ...each, ...change } : each)),
});

it('reads a view that stands upright on the edge between two places of a plan', () => {
  const onEdge = { id: 'aslant', side: { from: 'A', to: 'F' }, scale: 0.1, turn: 0.02, zero: [900, 2900] } as const;
  const given = problem() as { views: Json[]; features: Record<string, { seen: Json }> };
  const places = Object.entries(THING).map(([name, at]) => [name.toLowerCase(), drawnAt(onEdge, at, THING)]);
  const features = Object.entries(given.features).map(([name, { seen }]) => [
    name,
    { seen: { ...seen, aslant: [name.toLowerCase()] } },
  ]);
  const answer = solveProblem({
    ...given,
    views: [
      ...given.views,
      { ...given.views[0]!, id: 'aslant', side: onEdge.side, points: Object.fromEntries(places) },
    ],
    features: Object.fromEntries(features),
  });
  expect(answer).toMatchObject({ status: 'ok', views: expect.arrayContaining([{ view: 'aslant', grown: null }]) });
  const [far] = answer.distances as { mm: number; sigma: number }[];
  const [without] = solveProblem(problem()).distances as { mm: number; sigma: number }[];
  expect(far!.mm).toBeCloseTo(Math.hypot(150, 180, 250), 5);
  // It tells of the same thing once more.
  expect(far!.sigma).toBeLessThan(without!.sigma);
});

it('answers distances without a frame, places in one, and says how each piece stood', () => {
  const answer = solveProblem(problem());
  expect(answer).toMatchObject({
    name: 'nest box',
    status: 'ok',
    suspectsKept: false,
    cameras: [],
    warnings: [{ code: 'features-open' }],
  });
  const [far] = answer.distances as { mm: number; sigma: number }[];
  expect(far!.mm).toBeCloseTo(Math.hypot(150, 180, 250), 6);
  expect(far!.sigma).toBeGreaterThan(0.05);
  expect(answer.evidence).toEqual(
    ['w', 'd', 'h'].map((id) => ({
      id,
      normalized: expect.closeTo(0, 4) as number,
      redundancy: expect.any(Number) as number,
      suspect: false,
    })),
  );

  const framed = solveProblem(problem({ ...feature('A', { mm: [0, 0, 0] }), ask: { features: ['A', 'F'] } }));
  expect(framed.status).toBe('ok');
  const [a, f] = framed.features as { mm: number[]; sigma: number[] }[];
  expect(a).toEqual({ id: 'A', mm: [0, 0, 0], sigma: [0, 0, 0] });
  f!.mm.forEach((value, i) => expect(value).toBeCloseTo(THING.F![i]!, 5));
  expect(framed.warnings).toEqual([]);
});

it('a coordinate that is known with a plus-minus has it back, and one that two features share is the same', () => {
  const said = { ...feature('A', { mm: [0, 0, 0], sigma: 0.5 }) };
  const answer = solveProblem(
    problem(
      {
        ...said,
        ask: { features: ['A', 'B'] },
        evidence: [
          ...(problem().evidence as Json[]),
          { id: 'level', kind: 'same', along: ['up', 'deep'], of: ['A', 'B'] },
        ],
      },
      4,
    ),
  );
  expect(answer.status).toBe('ok');
  const [a, b] = answer.features as { mm: number[]; sigma: number[] }[];
  a!.sigma.forEach((sigma) => expect(sigma).toBeCloseTo(0.5, 6));
  expect(b!.mm.slice(1)).toEqual(a!.mm.slice(1).map((value) => expect.closeTo(value, 8) as number));
});

it('a wrong size is named and left out, and a check is compared only', () => {
  const base = problem({}, 8);
  const wrong = (base.evidence as Json[]).map((piece) => (piece.id === 'd' ? { ...piece, mm: 188 } : piece));
  const sizes = [
    { id: 'd2', kind: 'distance', along: 'deep', from: 'D', to: 'E', mm: 180, sigma: 0.2 },
    { id: 'far', kind: 'distance', from: 'A', to: 'E', mm: Math.hypot(150, 180, 250), check: true },
  ];
  const answer = solveProblem({ ...base, evidence: [...wrong, ...sizes] });
  expect(answer.status).toBe('ok');
  const reports = answer.evidence as {
    id: string;
    suspect: boolean;
    normalized: number;
    leftOut?: boolean;
    verdict?: string;
  }[];
  expect(reports.filter(({ suspect }) => suspect).map(({ id }) => id)).toEqual(['d']);
  expect(Math.abs(reports.find(({ id }) => id === 'd')!.normalized)).toBeGreaterThan(4);
  expect(reports.find(({ id }) => id === 'far')).toMatchObject({ check: true, verdict: 'agrees' });
  expect(answer.warnings).toContainEqual({ code: 'suspects-left-out', detail: { ids: ['d'] } });
});

it.each([
  ['no size at all', { evidence: [] }, 'scale-undetermined', ['scale']],
  ['a place without a frame', { ask: { features: ['F'] } }, 'feature-undetermined', undefined],
  [
    'what only one view shows along its depth',
    { ...feature('F', { seen: { front: ['f'] } }), ask: { distances: [['A', 'F']] } },
    'feature-undetermined',
    ['F'],
  ],
  [
    'something that nobody shows',
    { features: { ...(problem().features as Json), G: {} }, ask: { distances: [['A', 'G']] } },
    'feature-undetermined',
    ['G'],
  ],
])('%s stays open, and is said', (_, change, code, undetermined) => {
  const answer = solveProblem(problem(change as Json));
  expect(answer).toMatchObject({ status: 'undetermined', code, ...(undetermined && { undetermined }) });
  expect(answer.distances).toBeUndefined();
});

it('what nobody asked for and nothing determines spoils nothing', () => {
  const answer = solveProblem(
    problem({ features: { ...(problem().features as Json), G: {}, H: { seen: { front: ['f'] } } } }),
  );
  expect(answer.status).toBe('ok');
  expect((answer.warnings as { detail: { features: string[] } }[])[0]!.detail.features).toEqual(
    expect.arrayContaining(['G', 'H']),
  );
});

const distance = { id: 'x', kind: 'distance', from: 'A', to: 'B', mm: 5 };
const said = (piece: Json) => ({ evidence: [...(problem().evidence as Json[]), piece] });
it.each([
  ['evidence-feature-unknown', said({ ...distance, to: 'Z' })],
  ['evidence-features-coincide', said({ ...distance, to: 'A' })],
  ['evidence-id-twice', said({ ...distance, id: 'w' })],
  ['evidence-length-not-positive', said({ ...distance, mm: 0 })],
  ['evidence-sigma-not-positive', said({ ...distance, sigma: -1 })],
  ['evidence-malformed', said({ ...distance, mm: 'far' })],
  ['evidence-kind-unknown', said({ ...distance, kind: 'near' })],
  ['evidence-kind-unknown', view('top', { evidence: [{ id: 'l', kind: 'guessed' }] })],
  ['evidence-malformed', view('top', { evidence: [{ id: 'l', kind: 'length', from: 'a', to: 'b' }] })],
  ['evidence-direction-missing', { ...feature('B', { only: 'up', seen: { front: ['b'] } }), ...said(distance) }],
  [
    'evidence-direction-missing',
    {
      ...feature('B', { only: 'up', seen: { front: ['b'] } }),
      ...said({ id: 'x', kind: 'same', along: 'across', of: ['A', 'B'] }),
    },
  ],
  [
    'evidence-contradicts',
    {
      features: { ...feature('A', { mm: [0, 0, 0] }).features, B: { mm: [150, 0, 7] } },
      ...said({ id: 'x', kind: 'same', along: 'up', of: ['A', 'B'] }),
    },
  ],
  ['feature-view-unknown', feature('A', { seen: { left: ['a'] } })],
  ['feature-point-unknown', feature('A', { seen: { front: ['q'] } })],
  ['feature-not-shown', { ...feature('A', { only: 'deep' }), ask: {} }],
  ['feature-sigma-not-positive', feature('A', { mm: [0, 0, 0], sigma: 0 })],
  ['view-id-twice', { views: [...(problem().views as Json[]), (problem().views as Json[])[0]] }],
  ['view-camera-not-supported', view('top', { model: 'camera', side: undefined })],
  ['problem-malformed', view('top', { side: 'under' })],
  ['view-edge-unknown', view('front', { side: { from: 'A', to: 'nowhere' } })],
  ['view-edge-unknown', view('front', { side: { from: 'A', to: 'A' } })],
  ['problem-malformed', { views: 'none' }],
  ['click-sigma-not-positive', view('top', { clickSigmaPx: 0 })],
  ['evidence-point-unknown', view('top', { evidence: [{ id: 'l', kind: 'length', from: 'a', to: 'q', mm: 3 }] })],
  ['ask-feature-unknown', { ask: { distances: [['A', '__proto__']] } }],
  [
    'ask-direction-missing',
    { ...feature('B', { only: 'up', seen: { front: ['b'] } }), ask: { distances: [['A', 'B']] } },
  ],
  ['ask-camera-unknown', { ask: { cameras: ['front'] } }],
])('refused with %s', (code, change) => {
  const answer = solveProblem(problem(change as Json));
  expect(answer).toMatchObject({ name: 'nest box', status: 'refused', code });
  expect(answer.distances).toBeUndefined();
});
