/** Drawing, cutting and making on a scan of 10 px/mm, 200 × 100 mm, without a screen: what comes about is exact where it is said to be. */
import { cross, distance, endOf, pieceLength, startOf, subtract, tangentAt, type Vec } from '@/core/geometry';
import { addMade, changeRecipe, removeOutlines, runCommand } from '@/core/job';
import type { Chain, MadeOutline, Opening, Recipe } from '@/core/outline';
import { commandForSlot, commandForTurn, startTool, type ShapeState, type StandState } from '.';
import { HandBench } from './bench-for-tests';

const near = (value: number, digits = 6) => expect.closeTo(value, digits);
/** Two circles side by side: of 20 mm about (40, 50), of 10 mm about (110, 50). */
function withTwoCircles(): HandBench {
  const bench = new HandBench('circle').set_({ mode: 'rim' });
  bench.set([400, 500], [600, 500], [1100, 500], [1200, 500]);
  return bench;
}
const shapesOf = (bench: HandBench) => [...bench.context().shapes.values()];
const roundOf = (bench: HandBench, index: number) => {
  const piece = shapesOf(bench)[index]!.pieces[0]!;
  if (piece.kind !== 'arc') throw new Error('round');
  return piece;
};
const offLine = (at: Vec, [a, b]: readonly [Vec, Vec]) => cross(subtract(b, a), subtract(at, a)) / distance(a, b);

describe('lines that touch', () => {
  /** The four lines that touch two circles: one each side, or across between them. Where they touch is on the circles themselves. */
  it.each([
    [[420, 301], [1110, 400], 1, 1],
    [[420, 699], [1110, 600], -1, -1],
    [[500, 330], [1070, 592], 1, -1],
    [[500, 670], [1070, 408], -1, 1],
  ] as const)('from %j to %j', (first, second, sideA, sideB) => {
    const bench = withTwoCircles();
    bench.tool = startTool('chain');
    bench.set_({ touching: true }).set(first).set_({ touching: true }).set(second).give({ kind: 'finish' });
    const [line] = shapesOf(bench)[2]!.pieces;
    const ends = [startOf(line!), endOf(line!)] as const;
    const [a, b] = [roundOf(bench, 0), roundOf(bench, 1)];
    expect(Math.abs(offLine(a.centre, ends))).toBeCloseTo(a.radius, 8);
    expect(Math.abs(offLine(b.centre, ends))).toBeCloseTo(b.radius, 8);
    expect(distance(ends[0], a.centre)).toBeCloseTo(a.radius, 8);
    expect(distance(ends[1], b.centre)).toBeCloseTo(b.radius, 8);
    expect([Math.sign(ends[0][1] - a.centre[1]), Math.sign(ends[1][1] - b.centre[1])]).toEqual([sideA, sideB]);
  });

  it('a circle of a typed diameter touches two circles; one that touches three things needs none', () => {
    const bench = withTwoCircles();
    bench.tool = startTool('circle');
    bench.set_({ mode: 'touching' }).set([560, 380], [1020, 450]).give({ kind: 'typed', length: 60, aim: undefined });
    const [a, b, c] = [0, 1, 2].map((i) => roundOf(bench, i)) as [
      ReturnType<typeof roundOf>,
      ReturnType<typeof roundOf>,
      ReturnType<typeof roundOf>,
    ];
    expect(c.radius).toBeCloseTo(30, 8);
    expect(distance(c.centre, a.centre)).toBeCloseTo(50, 5);
    expect(distance(c.centre, b.centre)).toBeCloseTo(40, 5);

    const three = withTwoCircles();
    three.tool = startTool('chain');
    three.set([100, 900], [1500, 900]).give({ kind: 'finish' });
    three.tool = startTool('circle');
    three.set_({ mode: 'touching' }).set([500, 673], [1050, 590], [780, 900]);
    const found = roundOf(three, 3);
    expect(distance(found.centre, roundOf(three, 0).centre)).toBeCloseTo(20 + found.radius, 5);
    expect(distance(found.centre, roundOf(three, 1).centre)).toBeCloseTo(10 + found.radius, 5);
    expect(
      Math.abs(offLine(found.centre, [startOf(shapesOf(three)[2]!.pieces[0]!), endOf(shapesOf(three)[2]!.pieces[0]!)])),
    ).toBeCloseTo(found.radius, 5);
  });
});

describe('arcs, slots, ellipses and typed places', () => {
  it('an arc about a centre and one of a typed radius', () => {
    const bench = new HandBench('chain')
      .set_({ kind: 'arc', arcBy: 'centre' })
      .set([300, 500], [500, 500], [500, 250])
      .give({ kind: 'finish' });
    const about = roundOf(bench, 0);
    expect([...about.centre, about.radius]).toEqual(
      [near(50), near(50, 6), near(20)].map((_, i) => near([50, about.centre[1], 20][i]!)),
    );
    expect(Math.abs(about.sweep)).toBeCloseTo(Math.PI / 2, 6);
    const typed = new HandBench('chain')
      .set_({ kind: 'arc', arcBy: 'radius', radius: 25 })
      .set([300, 500], [600, 500])
      .give({ kind: 'finish' });
    expect(roundOf(typed, 0).radius).toBeCloseTo(25, 8);
    expect(
      new HandBench('chain').set_({ kind: 'arc', arcBy: 'radius', radius: 10 }).set([300, 500], [600, 500]).said,
    ).toEqual(['radius-too-small']);
  });

  it('a slot of a typed width is tangent all around', () => {
    const bench = new HandBench('shape').set_({ mode: 'slot' }).set([300, 500], [700, 480]);
    bench.history = runCommand(bench.history, commandForSlot(bench.tool.state as ShapeState, 12, bench.context())!);
    const { pieces } = shapesOf(bench)[0]!;
    expect(pieces.map(({ kind }) => kind)).toEqual(['line', 'arc', 'line', 'arc']);
    pieces.forEach((piece, i) =>
      expect(Math.abs(cross(tangentAt(piece, 1), tangentAt(pieces[(i + 1) % 4]!, 0)))).toBeLessThan(1e-8),
    );
    expect(pieces[1]?.kind === 'arc' && pieces[1].radius).toBeCloseTo(6, 9);
  });

  it('an ellipse of typed axes', () => {
    const bench = new HandBench('circle').set_({ mode: 'ellipse' }).set([600, 500]);
    bench.give({ kind: 'typed', length: 60, aim: bench.aim(900, 500) }, { kind: 'typed', length: 20, aim: undefined });
    const [piece] = shapesOf(bench)[0]!.pieces;
    expect(piece?.kind === 'ellipse' && [Math.hypot(...piece.major), piece.ratio]).toEqual([
      near(30, 9),
      near(1 / 3, 9),
    ]);
  });

  it('a triangle from typed places alone: from zero, then across and up', () => {
    const bench = new HandBench('chain');
    for (const [by, from] of [
      [[10, 20], 'zero'],
      [[30, 0], 'last'],
      [[0, 40], 'last'],
    ] as const)
      bench.give({ kind: 'typed', at: { by, from }, aim: undefined });
    bench.give({ kind: 'close' });
    expect(shapesOf(bench)[0]!.nodes).toEqual([
      [10, 20],
      [40, 20],
      [40, 60],
    ]);
    expect(shapesOf(bench)[0]!.pieces.map((piece) => pieceLength(piece))).toEqual([30, 40, 50]);
  });
});

describe('cutting', () => {
  it('by a chosen edge goes as far as that, past what else crosses', () => {
    const bench = new HandBench('chain').set([100, 500], [900, 500]).give({ kind: 'finish' });
    for (const x of [300, 600]) {
      bench.tool = startTool('chain');
      bench.set([x, 400], [x, 600]).give({ kind: 'finish' });
    }
    const length = () => pieceLength(bench.shape().pieces[0]!);
    bench.tool = startTool('cut');
    bench.set_({ edges: [], choosing: true }).set([300, 450]).set_({ choosing: false });
    const whole = bench.history;
    bench.set([800, 500]);
    expect(length()).toBeCloseTo(20, 6);
    bench.history = whole;
    bench.set_({ edges: undefined }).set([800, 500]);
    expect(length()).toBeCloseTo(50, 6);
    bench.set_({ edges: [bench.history.job.outlines[0]!.id] }).set([600, 420]);
    expect(bench.said).toEqual([]);
  });

  it('stretching moves the ends in a box by what is pointed at', () => {
    const bench = new HandBench('chain').set([100, 500], [500, 500], [500, 700]).give({ kind: 'close' });
    const [{ id }] = bench.history.job.outlines as [Chain];
    bench.tool = { name: 'stand', state: { mode: 'stretch', of: [id], points: [] } };
    bench.set([450, 450], [550, 750], [500, 500], [630, 500]);
    expect(bench.shape().nodes.map(([x]) => Number(x.toFixed(6)))).toEqual([10, 63, 63]);
    bench.tool = { name: 'stand', state: { mode: 'stretch', of: [id], points: [] } };
    bench.set([1450, 450], [1550, 750], [500, 500], [630, 500]);
    expect(bench.said).toEqual(['hold 1', 'stretch-nothing']);
  });

  it('trims a circle between two lines, extends a line to it, and splits what is left', () => {
    const bench = new HandBench('circle').set_({ mode: 'rim' }).set([600, 500], [800, 500]);
    bench.tool = startTool('chain');
    bench.set([500, 100], [500, 900]).give({ kind: 'finish' }).set([300, 500], [350, 500]).give({ kind: 'finish' });
    bench.tool = startTool('cut');
    bench.set([400, 500]);
    const arc = roundOf(bench, 0);
    expect(Math.abs(arc.sweep)).toBeCloseTo(2 * Math.PI - (2 * Math.PI) / 3, 6);
    bench.set_({ mode: 'on' }).set([349, 500]);
    expect(shapesOf(bench)[2]!.nodes[1]![0]).toBeCloseTo(50, 6);
    bench.set_({ mode: 'split' }).set([800, 500]);
    expect(bench.history.job.outlines).toHaveLength(4);
    expect(bench.set_({ mode: 'away' }).set([1500, 100]).said).toEqual(['nothing-to-cut']);
  });
});

describe('cutting what lies over each other', () => {
  /** Two lines over each other from 20 mm on, the second one drawn on to 80, and an edge across both at 50. */
  const laidOver = () => {
    const bench = new HandBench('chain').set([100, 500], [600, 500]).give({ kind: 'finish' });
    for (const [from, to] of [
      [
        [200, 500],
        [800, 500],
      ],
      [
        [500, 300],
        [500, 700],
      ],
    ] as const) {
      bench.tool = startTool('chain');
      bench.set(from, to).give({ kind: 'finish' });
    }
    bench.tool = startTool('cut');
    return bench;
  };
  const lengths = (bench: HandBench) => shapesOf(bench).map(({ pieces }) => Math.round(pieceLength(pieces[0]!)));

  it('asks which is meant, and cuts that where one points again', () => {
    for (const turns of [0, 1, 2, 3]) {
      const bench = laidOver().set([300, 500]);
      expect(lengths(bench)).toEqual([50, 60, 40]);
      expect(bench.hint()).toBe('cut-again');
      for (let i = 0; i < turns; i++) bench.give({ kind: 'another' });
      bench.set([301, 501]);
      expect(lengths(bench)).toEqual(turns % 2 === 0 ? [10, 60, 40] : [50, 30, 40]);
      expect([bench.hint(), bench.said]).toEqual(['cut', []]);
    }
  });

  it('lets go of it where one points at something else, and where one thing lies there cuts at once', () => {
    const bench = laidOver().set([300, 500]).set([700, 500]);
    expect([lengths(bench), bench.hint()]).toEqual([[50, 30, 40], 'cut']);
    expect(bench.give({ kind: 'another' }).said).toEqual(['nothing-under-it']);
  });

  it('shows what would go before it is cut', () => {
    const bench = laidOver().set([300, 500]).give({ kind: 'another' });
    const { pieces } = bench.preview();
    expect(pieces?.look).toBe('goes');
    expect(pieces!.list.map((piece) => Math.round(pieceLength(piece)))).toEqual([30]);
  });
});

describe('what is made follows', () => {
  const square = () => {
    const bench = new HandBench('shape').set([300, 700], [500, 500]);
    return { bench, id: bench.history.job.outlines[0]!.id };
  };
  const make = (bench: HandBench, recipe: MadeOutline['recipe'], instead = false) => {
    bench.history = runCommand(
      bench.history,
      addMade({ shape: 'made', id: 'made', layer: 'outline', plane: 'v', recipe }, instead),
    );
    return () => bench.context().shapes.get('made')!;
  };

  it('an offset grows with what it is made of and with its own value, and goes with it', () => {
    const { bench, id } = square();
    const shape = make(bench, { kind: 'offset', of: [id], by: 2, both: false, corners: 'mitre' });
    const sides = () => shape().pieces.map((piece) => pieceLength(piece));
    expect(sides()).toEqual([near(24), near(24), near(24), near(24)]);
    bench.history = runCommand(
      bench.history,
      changeRecipe('made', { kind: 'offset', of: [id], by: -4, both: false, corners: 'mitre' }),
    );
    expect(sides()).toEqual([near(12), near(12), near(12), near(12)]);
    bench.tool = {
      name: 'stand',
      state: { mode: 'scale', of: [id], points: [{ kind: 'pointed', at: [300, 700], sigma: 1 }] },
    };
    bench.history = runCommand(
      bench.history,
      commandForTurn(bench.tool.state as StandState, { scale: [2, 2] }, bench.context())!,
    );
    expect(sides()).toEqual([near(32), near(32), near(32), near(32)]);
    bench.history = runCommand(bench.history, removeOutlines([id]));
    expect(bench.history.job.outlines).toEqual([]);
  });

  it('an offset is pulled to where one points, on either side of what it follows', () => {
    const { bench, id } = square();
    make(bench, { kind: 'offset', of: [id], by: 2, both: false, corners: 'mitre' });
    const made = () => bench.history.job.outlines[1] as MadeOutline & { recipe: { by: number } };
    bench.tool = { name: 'select', state: { outlines: ['made'], several: false, moving: false } };
    const drag = (from: Vec, to: Vec) =>
      bench.give(
        { kind: 'grab', aim: bench.aim(...from), reach: 1 },
        { kind: 'drag', aim: bench.aim(...to), reach: 1 },
        { kind: 'drop', aim: bench.aim(...to), reach: 1 },
      );
    drag([280, 600], [253, 600]);
    expect(made().recipe.by).toBeCloseTo(4.7, 9);
    drag([253, 600], [330, 600]);
    expect(made().recipe.by).toBeCloseTo(-3, 9);
    bench.tool = {
      name: 'select',
      state: { outlines: ['made'], several: false, moving: true, grabbed: { kind: 'beside', to: undefined } },
    };
    bench.set([600, 600]);
    expect(made().recipe.by).toBeCloseTo(10, 9);
  });

  it('a wall traced along one face takes its thickness from where its other face is pointed at, on that side; about its middle it reaches as far to both', () => {
    const { bench, id } = square();
    make(bench, { kind: 'strip', of: [id], width: 5, justified: 'left', ends: 'flat', corners: 'mitre' });
    const recipe = () => (bench.history.job.outlines[1] as MadeOutline).recipe;
    const pointAtFace = (place: Vec) => {
      bench.tool = {
        name: 'select',
        state: { outlines: ['made'], several: false, moving: true, grabbed: { kind: 'beside', to: undefined } },
      };
      bench.set(place);
      return recipe();
    };
    const inside = pointAtFace([330, 600]);
    const outside = pointAtFace([180, 600]);
    expect([inside, outside]).toMatchObject([{ width: expect.closeTo(3, 9) }, { width: expect.closeTo(12, 9) }]);
    expect(new Set([inside, outside].map((strip) => 'justified' in strip && strip.justified))).toEqual(
      new Set(['left', 'right']),
    );
    bench.history = runCommand(bench.history, changeRecipe('made', { ...recipe(), justified: 'middle' } as Recipe));
    expect(pointAtFace([330, 600])).toMatchObject({ width: expect.closeTo(6, 9), justified: 'middle' });
  });

  it('a door is put where a wall is pointed at, opens to the side that is pointed at, and is chosen when it is pointed at again', () => {
    const { bench, id } = square();
    make(bench, { kind: 'strip', of: [id], width: 8, justified: 'middle', ends: 'flat', corners: 'mitre' });
    bench.tool = startTool('opening');
    bench.set([302, 600]).set([298, 600]);
    const openings = () =>
      (bench.history.job.outlines[1] as MadeOutline & { recipe: { openings: readonly Opening[] } }).recipe.openings;
    expect(openings()).toHaveLength(1);
    expect((bench.tool.state as { chosen?: string }).chosen).toBe(openings()[0]!.id);
    bench.set([400, 498]);
    expect(openings().map(({ fill }) => fill!.hung!.to)).toEqual(expect.arrayContaining(['left', 'right']));
    expect(bench.history.job.layers.map(({ name }) => name)).toEqual([
      'Outline',
      'Frames',
      'Leaves',
      'Swings and sills',
    ]);
    bench.set([900, 600]);
    expect(bench.said.at(-1)).toBe('no-wall-here');
  });

  it('half a profile becomes whole about a guide, closed exactly on it; its half stays behind as an aid', () => {
    const bench = new HandBench('guide').set_({ mode: 'upright' }).set([500, 100]);
    const guide = bench.history.job.guides[0]!.id;
    bench.tool = startTool('chain');
    bench.set([503, 200], [800, 300], [700, 700], [501, 800]).give({ kind: 'finish' });
    const half = bench.history.job.outlines[0] as Chain;
    const shape = make(bench, { kind: 'mirrored', of: [half.id], guide, joined: true }, true);
    expect(shape().closed).toBe(true);
    expect(shape().pieces.length).toBe(6);
    const xs = shape().pieces.map((piece) => startOf(piece)[0]);
    expect(Math.min(...xs) + Math.max(...xs)).toBeCloseTo(100, 8);
    expect(bench.history.job.outlines[0]!.aid).toBe(true);
  });

  it('rows and copies around a centre are where they should be', () => {
    const { bench, id } = square();
    const shape = make(bench, { kind: 'rows', of: [id], step: [25, 0], count: 3, rowStep: [0, -30], rows: 2 });
    const corners = shape().paths.map(({ pieces }) => startOf(pieces[0]!));
    const [from] = [startOf(bench.context().shapes.get(id)!.pieces[0]!)];
    expect(corners.map(([x, y]) => [x - from[0], y - from[1]])).toEqual(
      [
        [25, 0],
        [50, 0],
        [0, -30],
        [25, -30],
        [50, -30],
      ].map((by) => by.map((v) => near(v))),
    );
    bench.history = runCommand(
      bench.history,
      changeRecipe('made', {
        kind: 'around',
        of: [id],
        centre: { kind: 'placed', at: [0, 0], seen: [0, 0] },
        count: 4,
        sweep: 2 * Math.PI,
      }),
    );
    const [first] = shape().paths;
    expect(startOf(first!.pieces[0]!)).toEqual([near(-from[1]), near(from[0])]);
    expect(shape().paths).toHaveLength(3);
  });
});

it('what is in millimetres waits for a scale', () => {
  const unscaled = new HandBench('chain', false).set_({ wall: { width: 100, justified: 'middle' } }).set([100, 100]);
  expect([unscaled.said, unscaled.history.job.outlines]).toEqual([['scale-first'], []]);
  expect(new HandBench('chain', false).set_({ kind: 'arc', arcBy: 'radius', radius: 10 }).set([100, 100]).said).toEqual(
    ['scale-first'],
  );
});

it('a wall joins those of its thickness: corners and tees are one outline with two rooms in it', () => {
  const bench = new HandBench('chain').set_({ wall: { width: 4, justified: 'middle' } });
  bench
    .set([200, 200], [900, 200], [900, 800], [200, 800])
    .give({ kind: 'close' })
    .set([500, 200], [500, 800])
    .give({ kind: 'finish' });
  const walls = bench.history.job.outlines.filter(({ shape }) => shape === 'made');
  expect(walls).toHaveLength(1);
  expect(
    bench
      .context()
      .shapes.get(walls[0]!.id)!
      .paths.map(({ pieces }) => pieces.length),
  ).toEqual([4, 4, 4]);
});

it('what follows others is not moved by itself; a part that was stood elsewhere is', () => {
  const bench = new HandBench('shape').set([300, 700], [500, 500]);
  const of = [bench.history.job.outlines[0]!.id];
  bench.history = runCommand(
    bench.history,
    addMade(
      {
        shape: 'made',
        id: 'grown',
        layer: 'outline',
        plane: 'v',
        recipe: { kind: 'offset', of, by: 2, both: false, corners: 'round' },
      },
      false,
    ),
  );
  bench.tool = startTool('stand');
  bench.set_({ mode: 'placed', of }).set([300, 700], [900, 700]);
  const part = bench.history.job.outlines.at(-1)!.id;
  const corner = () => startOf(bench.context().shapes.get(part)!.pieces[0]!);
  const before = corner();
  expect(bench.set_({ mode: 'move', of: ['grown'] }).set([300, 700]).said).toEqual(['hold 1', 'made-follows']);
  bench.set_({ mode: 'move', of: [part] }).set([100, 100], [250, 100]);
  expect(subtract(corner(), before)).toEqual([near(15), near(0)]);
});
