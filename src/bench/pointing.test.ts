import fc from 'fast-check';
import { aimAt, aimZoom, pointingSigma, turnAfter, type AimOptions } from './aim';
import { AT_REST, stepGesture, type Gesture, type GestureEffect, type TouchInput } from './gesture';
import { fitView, unscaledFit } from '@/core/calibrate';
import { squaredUp } from './laying';
import { panBy, toScreen, sheetUnder, zoomAbout, zoomTo, type Viewport } from './viewport';

/** Feeds a whole gesture and gives back everything it asked for. */
function play(inputs: readonly TouchInput[]): { gesture: Gesture; effects: GestureEffect[] } {
  return inputs.reduce<{ gesture: Gesture; effects: GestureEffect[] }>(
    ({ gesture, effects }, input) => {
      const [next, more] = stepGesture(gesture, input);
      return { gesture: next, effects: [...effects, ...more] };
    },
    { gesture: AT_REST, effects: [] },
  );
}

describe('fingers', () => {
  it('bring the aim above the fingertip and set on lifting', () => {
    const { effects, gesture } = play([
      { kind: 'down', finger: 1, at: [100, 400], time: 0 },
      { kind: 'up', finger: 1, time: 80 },
    ]);
    expect(effects).toEqual([
      { kind: 'aim', screen: [100, 304], unaided: 1 },
      { kind: 'set', screen: [100, 304], unaided: 1 },
    ]);
    expect(gesture).toEqual(AT_REST);
  });

  it('move the aim finely when slow and fully when quick', () => {
    const aimAfter = (ms: number) => {
      const { effects } = play([
        { kind: 'down', finger: 1, at: [100, 400], time: 0 },
        { kind: 'move', finger: 1, at: [110, 400], time: ms },
      ]);
      const last = effects.at(-1)!;
      return last.kind === 'aim' ? last.screen[0] - 100 : NaN;
    };
    expect(aimAfter(1000)).toBeCloseTo(2, 9);
    expect(aimAfter(10)).toBeCloseTo(10, 9);
  });

  it('pan and zoom with a second finger at any time, and set nothing', () => {
    const { effects } = play([
      { kind: 'down', finger: 1, at: [100, 400], time: 0 },
      { kind: 'down', finger: 2, at: [200, 400], time: 10 },
      { kind: 'move', finger: 2, at: [300, 400], time: 20 },
      { kind: 'up', finger: 2, time: 30 },
      { kind: 'up', finger: 1, time: 40 },
    ]);
    expect(effects.filter((effect) => effect.kind === 'set')).toEqual([]);
    expect(effects).toContainEqual({ kind: 'pan-zoom', about: [200, 400], by: [50, 0], factor: 2 });
  });

  it('never set when the browser takes them away, and come to rest whatever happens', () => {
    const { effects } = play([
      { kind: 'down', finger: 1, at: [1, 1], time: 0 },
      { kind: 'lost', finger: 1 },
    ]);
    expect(effects.at(-1)).toEqual({ kind: 'drop-aim' });
    const finger = fc.integer({ min: 1, max: 3 });
    const input = fc.oneof(
      fc.record({
        kind: fc.constantFrom('down' as const, 'move' as const),
        finger,
        at: fc.tuple(fc.integer(), fc.integer()),
        time: fc.nat(),
      }),
      fc.record({ kind: fc.constant('up' as const), finger, time: fc.nat() }),
      fc.record({ kind: fc.constant('lost' as const), finger }),
    );
    fc.assert(
      fc.property(fc.array(input, { maxLength: 40 }), (inputs) => {
        const ends: TouchInput[] = [1, 2, 3].map((id) => ({ kind: 'lost', finger: id }));
        expect(play([...inputs, ...ends]).gesture.kind).toBe('rest');
      }),
    );
  });
});

describe('the viewport', () => {
  const viewport: Viewport = { width: 800, height: 600, zoom: 0.3, centre: [2000, 1500] };
  const place = fc.tuple(
    fc.double({ min: -1e4, max: 1e4, noNaN: true }),
    fc.double({ min: -1e4, max: 1e4, noNaN: true }),
  );
  it('goes to the screen and back', () => {
    fc.assert(
      fc.property(place, (p) => {
        const back = sheetUnder(viewport, toScreen(viewport, p));
        expect(Math.hypot(back[0] - p[0], back[1] - p[1])).toBeLessThan(1e-8);
      }),
    );
  });
  it('keeps what lies under the pointer while zooming, and what lies in the middle while its size changes', () => {
    fc.assert(
      fc.property(place, fc.double({ min: 0.2, max: 5, noNaN: true }), (p, factor) => {
        const screen = toScreen(viewport, p);
        const after = toScreen(zoomAbout(viewport, screen, factor), p);
        expect(Math.hypot(after[0] - screen[0], after[1] - screen[1])).toBeLessThan(1e-6);
      }),
    );
    expect(sheetUnder({ ...viewport, width: 500, height: 900 }, [250, 450])).toEqual(viewport.centre);
    expect(sheetUnder(panBy(viewport, [30, 0]), [430, 300])).toEqual([2000, 1500]);
  });
  it('goes to the screen and back when the picture lies squared up, with lines straight and sizes true', () => {
    const points = {
      a: { at: [800, 700] as const, sigma: 0.5 },
      b: { at: [3300, 900] as const, sigma: 0.5 },
      c: { at: [3000, 2500] as const, sigma: 0.5 },
      d: { at: [900, 2200] as const, sigma: 0.5 },
    };
    const known = [
      [0, 0],
      [400, 0],
      [400, -300],
      [0, -300],
    ] as const;
    const evidence = known.map((mm, i) => ({
      id: `k${i}`,
      kind: 'known-point' as const,
      point: 'abcd'[i]!,
      mm,
      sigma: 0.01,
    }));
    const fit = fitView({
      picture: { width: 4032, height: 3024, kind: 'photo' },
      datum: { origin: [0, 0], direction: 0 },
      points,
      evidence,
      lift: { mm: 0, sigma: 1 },
      model: 'projective',
    });
    if (!fit.ok) throw new Error(fit.code);
    const laid = { ...viewport, laid: squaredUp({ fit: fit.value, view: {} }) };
    fc.assert(
      fc.property(
        fc.double({ min: 300, max: 3700, noNaN: true }),
        fc.double({ min: 300, max: 2700, noNaN: true }),
        (x, y) => {
          const back = sheetUnder(laid, toScreen(laid, [x, y]));
          expect(Math.hypot(back[0] - x, back[1] - y)).toBeLessThan(1e-6);
        },
      ),
    );
    const shown = [points.a, points.b, points.c, points.d].map(({ at }) => toScreen(laid, at));
    const [ab, bc, ac] = [
      [0, 1],
      [1, 2],
      [0, 2],
    ].map(([i, k]) => Math.hypot(shown[i!]![0] - shown[k!]![0], shown[i!]![1] - shown[k!]![1])) as [
      number,
      number,
      number,
    ];
    expect(ab / bc).toBeCloseTo(4 / 3, 6);
    expect(ac / bc).toBeCloseTo(5 / 3, 6);
  });
  it('brings a whole box into sight', () => {
    const shown = zoomTo(viewport, { min: [0, 0], max: [4032, 3024] });
    for (const corner of [
      [0, 0],
      [4032, 3024],
    ] as const) {
      const [x, y] = toScreen(shown, corner);
      expect(x >= 0 && x <= 800 && y >= 0 && y <= 600).toBe(true);
    }
  });
});

it('the aim takes a corner of the picture before an edge, and the drawing before both', () => {
  const fit = unscaledFit({
    picture: { width: 4032, height: 3024, kind: 'photo' },
    datum: { origin: [0, 3024], direction: 0 },
  });
  const edge = { at: [1001, 1000] as const, normal: 0, sigma: 0.2, kind: 'step' as const };
  const seen = { fit, zoom: 1, pointer: 'mouse' as const, snapping: true, search: () => [], findEdge: () => edge };
  expect(aimAt([1000, 1000], seen)).toMatchObject({ sheet: [1001, 1000], snap: 'picture-edge', edge: { sigma: 0.2 } });
  const corner = { ...seen, findCorner: () => ({ at: [1003, 999] as const, sigma: 0.3 }) };
  expect(aimAt([1000, 1000], corner)).toMatchObject({
    sheet: [1003, 999],
    snap: 'picture-corner',
    sigma: 0.3,
    free: [1000, 1000],
  });
  expect(aimAt([1000, 1000], corner).edge).toBeUndefined();
  expect(aimAt([1000, 1000], { ...corner, snapping: false })).toMatchObject({ sheet: [1000, 1000], snap: undefined });
});

it('the sigma of a point falls with the zoom, down to the edge’s own blur', () => {
  expect(pointingSigma({ pointer: 'mouse' }, 0.1)).toBeCloseTo(Math.hypot(8, 0.5), 9);
  expect(pointingSigma({ pointer: 'mouse' }, 100)).toBeCloseTo(0.5, 2);
  expect(pointingSigma({ pointer: 'touch' }, 0.1)).toBeLessThan(pointingSigma({ pointer: 'mouse' }, 0.1));
  expect(pointingSigma({ pointer: 'touch', unaided: 1 }, 0.1)).toBeCloseTo(
    5 * pointingSigma({ pointer: 'touch' }, 0.1),
    0,
  );
  expect(aimZoom(0.1)).toBeCloseTo(0.5, 9);
  expect(aimZoom(30)).toBe(30);
});

it('what lies within reach is gone through by turns: the best first, then the rest, the place itself last, and round again', () => {
  const fit = unscaledFit({
    picture: { width: 4032, height: 3024, kind: 'photo' },
    datum: { origin: [0, 3024], direction: 0 },
  });
  const line = { kind: 'line', a: [990, 2024], b: [1006, 2024] } as const;
  const search = () => [{ piece: line, guide: false }];
  const edge = { at: [1001, 999] as const, normal: 0, sigma: 0.2, kind: 'step' as const };
  const seeing = (turn: number, findEdge?: () => typeof edge): AimOptions => ({
    fit,
    zoom: 1,
    pointer: 'mouse',
    snapping: true,
    search,
    turn,
    ...(findEdge ? { findEdge } : {}),
  });
  const at = [1000, 1000] as const;
  const turns = (findEdge?: () => typeof edge) =>
    [0, 1, 2, 3, 4, 5].map((turn) => aimAt(at, seeing(turn, findEdge)).snap);
  expect(turns()).toEqual(['end', 'middle', 'nearest', undefined, 'end', 'middle']);
  expect(turns(() => edge)).toEqual(['end', 'middle', 'nearest', 'picture-edge', undefined, 'end']);
  // A part of the picture that came in between: from the place itself it goes on to the first, never to the place itself again.
  const itself = aimAt(at, seeing(3));
  expect(itself.snap).toBeUndefined();
  expect(
    aimAt(
      at,
      seeing(
        turnAfter(
          itself,
          at,
          seeing(3, () => edge),
        ),
        () => edge,
      ),
    ).snap,
  ).toBe('end');
  const nearest = aimAt(at, seeing(2));
  expect(
    aimAt(
      at,
      seeing(
        turnAfter(
          nearest,
          at,
          seeing(2, () => edge),
        ),
        () => edge,
      ),
    ).snap,
  ).toBe('picture-edge');
});
