import { distance, type Vec } from '@/core/geometry';
import { pointAgain, runCommand } from '@/core/job';
import type { Chain } from '@/core/outline';
import {
  commandForAgain,
  commandForEvidence,
  commandForRectangle,
  startTool,
  type EvidenceState,
  type ShapeState,
} from '.';
import { HandBench } from './bench-for-tests';

describe('shapes', () => {
  const sidesOf = (bench: HandBench) =>
    [...bench.context().shapes.values()][0]!.pieces.map((piece) =>
      piece.kind === 'line' ? ([piece.b[0] - piece.a[0], piece.b[1] - piece.a[1]] as const) : [NaN, NaN],
    );
  const near = (value: number) => expect.closeTo(value, 8);

  it('a rectangle is level and upright to the last digit, turned or typed: offset from a place, sides as said', () => {
    expect(sidesOf(new HandBench('shape').set([100, 800], [503, 597]))).toEqual(
      [
        [near(40.3), 0],
        [0, near(20.3)],
        [near(-40.3), 0],
        [0, near(-20.3)],
      ].map((side) => side.map((value) => (value === 0 ? near(0) : value))),
    );
    const typed = new HandBench('shape').set([100, 800]);
    typed.history = runCommand(
      typed.history,
      commandForRectangle(
        typed.tool.state as ShapeState,
        { width: 50, height: 30, offset: [12.5, -5] },
        typed.context(),
      )!,
    );
    const [first] = [...typed.context().shapes.values()];
    const from = typed.context().fitted.placing.toPlane([100, 800]);
    expect(first!.nodes[0]).toEqual([near(from[0] + 12.5), near(from[1] - 5)]);
    expect(sidesOf(typed)[1]).toEqual([near(0), near(30)]);
  });

  it('a turned rectangle is square, its far side where it was pointed; a hexagon is even; both before there is a scale', () => {
    for (const scaled of [true, false]) {
      const turned = new HandBench('shape', scaled);
      turned.tool = { name: 'shape', state: { mode: 'turned', sides: 6, points: [] } };
      const sides = sidesOf(turned.set([100, 800], [500, 700], [300, 500]));
      sides.forEach(([x, y], i) => expect(x * sides[(i + 1) % 4]![0] + y * sides[(i + 1) % 4]![1]).toBeCloseTo(0, 6));
      const unit = scaled ? 0.1 : 1;
      expect(Math.hypot(...sides[1]!)).toBeCloseTo(unit * ((250 * 400) / Math.hypot(400, 100)), 3);
      const hexagon = new HandBench('shape', scaled);
      hexagon.tool = { name: 'shape', state: { mode: 'polygon', sides: 6, points: [] } };
      const lengths = sidesOf(hexagon.set([600, 800], [700, 790])).map((side) => Math.hypot(...side));
      expect(lengths).toHaveLength(6);
      for (const length of lengths) expect(length).toBeCloseTo(unit * Math.hypot(100, 10), 6);
    }
  });

  it('relating chooses a corner, a segment or a circle, and lets go of it again', () => {
    const bench = new HandBench('shape').set([100, 800], [500, 600]);
    bench.tool = startTool('relate');
    bench.set([300, 801], [101, 799], [300, 801]);
    const [chain] = bench.history.job.outlines as [Chain];
    expect(bench.tool.state).toEqual({ on: [{ outline: chain.id, node: chain.nodes[0]!.id }] });
    expect(bench.set([300, 300]).said).toEqual(['nothing-to-relate']);
    // In a hole that lies in a larger disc, far from both rims, the hole is meant.
    const discs = new HandBench('circle').set_({ mode: 'rim' }).set([600, 500], [1000, 500], [600, 500], [750, 500]);
    discs.tool = startTool('relate');
    const [disc, hole] = discs.history.job.outlines;
    expect(discs.set([640, 540]).set([600, 800]).tool.state).toEqual({
      on: [{ outline: hole!.id }, { outline: disc!.id }],
    });
  });
});

describe('several things at one place', () => {
  /** A rectangle and a circle that touches its lower side. */
  const touching = () => {
    const bench = new HandBench('shape').set([100, 800], [500, 600]);
    bench.tool = startTool('circle');
    return bench.set_({ mode: 'rim' }).set([300, 900], [300, 801]);
  };

  it.each(['relate', 'dimension'] as const)(
    '%s goes through them, round and round, and never takes one twice',
    (name) => {
      const bench = touching();
      const [chain, round] = bench.history.job.outlines as [Chain, { readonly id: string }];
      bench.tool = startTool(name);
      bench.set([300, 800]);
      const all = (bench.tool.state as { within?: readonly object[] }).within!;
      expect(all).toEqual(
        expect.arrayContaining([{ outline: round.id }, { outline: chain.id, segment: chain.nodes[0]!.id }]),
      );
      const chosen = () => (bench.tool.state as { on: readonly object[] }).on;
      const seen = all.map(() => (bench.give({ kind: 'another' }), chosen()));
      expect(seen.every(({ length }) => length === 1)).toBe(true);
      expect(new Set(seen.map(([end]) => JSON.stringify(end))).size).toBe(all.length);
      expect(seen.at(-1)).toEqual([all[0]]);
      // The other one is chosen already: nothing else lies here.
      bench.give({ kind: 'cancel' }).set([500, 700]).set([300, 800]);
      expect(chosen()).toHaveLength(2);
      bench.give({ kind: 'another' });
      expect(new Set(chosen().map((end) => JSON.stringify(end))).size).toBe(2);
    },
  );

  it('says so where nothing lies under it', () => {
    const bench = touching();
    bench.tool = startTool('relate');
    expect(bench.set([100, 700]).give({ kind: 'another' }).said.at(-1)).toBe('nothing-under-it');
  });
});

describe('drawing an outline', () => {
  it('closes on its first point, and takes back point by point', () => {
    const bench = new HandBench('chain').set([100, 100], [300, 100], [300, 300]).give({ kind: 'back' }).set([300, 250]);
    bench.give({ kind: 'set', aim: bench.aim(100, 100, 'end') });
    expect(bench.shape()).toMatchObject({ closed: true, pieces: { length: 3 } });
    expect(bench.shape().nodes[2]![1]).toBeCloseTo(75, 9);
  });

  it('cancels to nothing and goes back to nothing', () => {
    const bench = new HandBench('chain').set([100, 100], [300, 100]).give({ kind: 'cancel' });
    expect(bench.tool.state).toMatchObject({ nodes: [] });
    bench.set([1, 1]).give({ kind: 'back' }, { kind: 'back' });
    expect(bench.history.job.outlines).toEqual([]);
  });

  it('nudges the last point, and finishes only what is an outline', () => {
    const bench = new HandBench('chain').set([100, 100]).give({ kind: 'finish' });
    expect(bench.said).toEqual(['outline-needs-two-points']);
    bench.set([200, 100]).give({ kind: 'nudge', by: [3, 0], sigma: 1 }, { kind: 'finish' });
    expect(bench.shape().nodes[1]![0]).toBeCloseTo(20.3, 9);
  });

  it('goes by typed length towards the aim, and by typed angle to its foot', () => {
    const bench = new HandBench('chain').set([100, 100]);
    bench.give(
      { kind: 'typed', length: 12.7, aim: bench.aim(900, 100) },
      { kind: 'typed', angle: Math.PI / 2, aim: bench.aim(500, 40) },
      { kind: 'finish' },
    );
    const [a, b, c] = bench.shape().nodes;
    expect(distance(a!, b!)).toBeCloseTo(12.7, 9);
    expect(c![0]).toBeCloseTo(b![0], 9);
    expect(c![1] - b![1]).toBeCloseTo(6, 9);
  });

  it('wants a scale before a typed size, and a point before that', () => {
    expect(new HandBench('chain').give({ kind: 'typed', length: 5, aim: undefined }).said).toEqual(['point-first']);
    expect(new HandBench('chain', false).set([1, 1]).give({ kind: 'typed', length: 5, aim: undefined }).said).toEqual([
      'scale-first',
    ]);
  });

  it('ends a curve in a corner where a line follows, and refuses arcs that lie in a line as far as a hand can tell', () => {
    const bench = new HandBench('chain')
      .set_({ kind: 'curve' })
      .set([100, 100], [200, 60], [300, 100])
      .set_({ kind: 'line' })
      .set([300, 300])
      .give({ kind: 'finish' });
    expect((bench.history.job.outlines[0] as Chain).nodes.map((node) => node.smooth)).toEqual([
      true,
      true,
      false,
      true,
    ]);
    expect(new HandBench('chain').set_({ kind: 'arc' }).set([100, 100], [200, 100.3], [300, 100]).said).toEqual([
      'arc-in-a-line',
    ]);
  });
});

describe('circles', () => {
  it('take a typed diameter about their centre, whatever was pointed', () => {
    const bench = new HandBench('circle')
      .set_({ mode: 'rim' })
      .set([500, 500])
      .give({ kind: 'typed', length: 8, aim: undefined });
    expect(bench.shape().pieces[0]).toMatchObject({ kind: 'arc', radius: 4 });
  });
  it('go through three points, and not through three in a line', () => {
    const bench = new HandBench('circle').set_({ mode: 'three' }).set([400, 500], [600, 500], [500, 400]);
    expect(bench.shape().pieces[0]!.kind === 'arc' && bench.shape().pieces[0]).toMatchObject({
      radius: expect.closeTo(10, 9),
    });
    expect(new HandBench('circle').set_({ mode: 'three' }).set([1, 1], [50, 50], [99, 99]).said).toEqual([
      'points-in-a-line',
    ]);
  });
});

describe('choosing', () => {
  const curve = () => {
    const bench = new HandBench('chain')
      .set_({ kind: 'curve' })
      .set([400, 500], [800, 400], [1200, 500])
      .give({ kind: 'finish' });
    bench.tool = startTool('select');
    return bench;
  };
  it('takes an outline, then its node, and moves the node to where the next place is set', () => {
    const bench = curve().set([800, 400]).set([800, 400]);
    expect(bench.tool.state).toMatchObject({ node: expect.any(String) });
    bench.set_({ moving: true }).set([810, 380]);
    expect(distance(bench.shape().nodes[1]!, [81, 62])).toBeLessThan(1e-9);
  });
  it('takes a handle in hand by pointing at it, and moves it by pointing again', () => {
    const bench = curve().set([800, 400]).set([800, 400]);
    const before = bench.shape().pieces[1]!;
    if (before.kind !== 'cubic') throw new Error('kind');
    const at: Vec = [before.b[0] * 10, 1000 - before.b[1] * 10];
    bench.set(at).set([at[0], at[1] + 50]);
    const after = bench.shape().pieces;
    expect(after[1]!.kind === 'cubic' && after[1]!.b[1]).toBeCloseTo(before.b[1] - 5, 9);
    // The node is smooth: the handle on its other side turned along.
    expect(after[0]!.kind === 'cubic' && after[0]!.c[1]).toBeGreaterThan(60);
  });
  it('goes on to what lies under it, round and round, and says where nothing does', () => {
    const bench = new HandBench('circle')
      .set_({ mode: 'rim' })
      .set([600, 500], [700, 500], [605, 500], [705, 500], [1500, 300], [1550, 300]);
    const [first, second, apart] = bench.history.job.outlines.map(({ id }) => id);
    bench.tool = startTool('select');
    const chosen = () => (bench.tool.state as { outlines: readonly string[] }).outlines;
    // Where both rims pass, nearer to the first one.
    bench.set([701, 500]);
    expect(chosen()).toEqual([first]);
    const seen = [1, 2, 3].map(() => (bench.give({ kind: 'another' }), chosen()[0]));
    expect(seen).toEqual([second, first, second]);
    bench.set_({ several: true, outlines: [apart, first] }).give({ kind: 'another' });
    expect(chosen()).toEqual([apart, second]);
    expect(
      bench
        .set([1550, 300])
        .set_({ several: false })
        .give({ kind: 'cancel' })
        .set([1550, 300])
        .give({ kind: 'another' }).said,
    ).toEqual(['nothing-under-it']);
    expect(chosen()).toEqual([apart]);
  });
  it('leaves locked layers alone', () => {
    const bench = curve();
    bench.history = {
      ...bench.history,
      job: { ...bench.history.job, layers: bench.history.job.layers.map((layer) => ({ ...layer, lock: true })) },
    };
    expect(bench.set([800, 400]).tool.state).toMatchObject({ outlines: [] });
  });
});

describe('what the picture was searched for', () => {
  const ring = Array.from({ length: 12 }, (_, i) => ({
    at: [500 + 40 * Math.cos((i * Math.PI) / 6), 500 + 40 * Math.sin((i * Math.PI) / 6)] as const,
    sigma: 0.15,
  }));
  it('is asked for by a tap inside, and makes a circle', () => {
    const bench = new HandBench('circle').set([505, 498]);
    expect(bench.said).toEqual(['seek rim']);
    bench.give({ kind: 'found', points: ring });
    expect(bench.shape().pieces[0]!.kind === 'arc' && bench.shape().pieces[0]).toMatchObject({
      radius: expect.closeTo(4, 9),
      centre: [expect.closeTo(50, 9), expect.closeTo(50, 9)],
    });
  });
  it('becomes the points of a piece of evidence, and the tap is forgotten', () => {
    const bench = new HandBench('evidence')
      .set_({ kind: 'circle' })
      .give({ kind: 'set', aim: new HandBench('evidence').aim(505, 498), seek: true });
    expect(bench.said).toEqual(['seek rim']);
    bench.give({ kind: 'found', points: ring });
    expect(bench.tool.state).toMatchObject({ points: ring, found: true });
  });
});

describe('a straight edge', () => {
  const onEdge = (x: number, y: number) => ({
    ...new HandBench('evidence').aim(x, y),
    snap: 'picture-edge' as const,
    edge: { normal: 0.1, sigma: 0.2 },
  });
  const along = Array.from({ length: 9 }, (_, i) => ({ at: [100 + 200 * i, 500] as const, sigma: 0.4 }));
  it('is followed from one tap on it; taken back, it is pointed at by hand', () => {
    const bench = new HandBench('evidence')
      .set_({ kind: 'straight' })
      .give({ kind: 'set', aim: onEdge(505, 498), seek: true });
    expect(bench.said).toEqual(['seek straight']);
    bench.give({ kind: 'found', points: along });
    expect(bench.tool.state).toMatchObject({ points: along, found: true });
    bench.give({ kind: 'back' }, { kind: 'set', aim: onEdge(505, 498), seek: true });
    expect(bench.said).toEqual(['seek straight']);
    expect((bench.tool.state as EvidenceState).points).toHaveLength(1);
  });
  it('is offered by the picture, and another one in its place; other kinds offer nothing', () => {
    const bench = new HandBench('evidence').set_({ kind: 'straight' }).give({ kind: 'propose' });
    bench.give({ kind: 'found', points: along });
    expect(bench.tool.state).toMatchObject({ points: along, found: true });
    bench.give({ kind: 'propose' });
    expect(bench.said).toEqual(['seek next-straight', 'seek next-straight']);
    expect((bench.tool.state as EvidenceState).points).toHaveLength(0);
    expect(new HandBench('evidence').set_({ kind: 'circle' }).give({ kind: 'propose' }).said).toEqual([]);
  });
  it('is not looked for where no edge was, nor are a thing’s sides where one was', () => {
    const straight = new HandBench('evidence')
      .set_({ kind: 'straight' })
      .give({ kind: 'set', aim: new HandBench('evidence').aim(505, 498), seek: true });
    const card = new HandBench('evidence')
      .set_({ kind: 'rectangle' })
      .give({ kind: 'set', aim: onEdge(505, 498), seek: true });
    expect([straight.said, card.said]).toEqual([[], []]);
    straight.give({ kind: 'not-found' });
    expect((straight.tool.state as EvidenceState).points).toHaveLength(0);
  });
});

describe('a size pointed at again', () => {
  const again = (bench: HandBench) =>
    bench.history.job.views[0]!.points.map((point) => point.again?.map(({ at }) => at));
  it('is averaged with how it was pointed at before, whichever end comes first', () => {
    const bench = new HandBench('evidence').set_({ again: 'e' }).set([1003, 499], [-2, 501]);
    bench.give({ kind: 'nudge', by: [1, 0], sigma: 0.5 });
    bench.history = runCommand(bench.history, commandForAgain(bench.tool.state as EvidenceState, bench.context())!);
    expect(again(bench)).toEqual([[[-1, 501]], [[1003, 499]]]);
    const { fit, steadiness } = bench.context().fitted;
    expect(steadiness.repetitions).toBe(4);
    // The hand was closer the second time: those places weigh four times as much.
    expect(distance(fit.toPlane([-0.8, 500.8]), fit.toPlane([1002.4, 499.2]))).toBeCloseTo(100, 9);
  });
  it('is not pointed at somewhere else', () => {
    expect(new HandBench('evidence').set_({ again: 'e' }).set([500, 500]).said).toEqual(['pointed-elsewhere']);
  });
  it('is known for the same when it is said once more, and does not count twice', () => {
    const bench = new HandBench('evidence').set([2, 500], [1004, 500]);
    const said = { sizes: { length: { value: 100, written: '10 cm' } }, plusMinus: undefined, guess: false };
    const command = commandForEvidence(bench.tool.state as EvidenceState, said, bench.context())!;
    expect(command.name.code).toBe('pointed-again');
    bench.history = runCommand(bench.history, command);
    expect(again(bench)).toEqual([[[2, 500]], [[1004, 500]]]);
    expect(
      commandForEvidence(
        bench.tool.state as EvidenceState,
        { ...said, sizes: { length: { value: 101, written: '101' } } },
        bench.context(),
      )!.name.code,
    ).toBe('evidence-added');
  });
  it('forgets how it was pointed at before when a point is put right', () => {
    const bench = new HandBench('points');
    bench.history = runCommand(bench.history, pointAgain('v', [{ id: 'q', at: [1005, 500], sigma: 1 }]));
    bench.set([1000, 500], [1020, 540]);
    expect(again(bench)).toEqual([undefined, undefined]);
  });
});

describe('points of the evidence', () => {
  const points = (bench: HandBench) => bench.history.job.views[0]!.points.map(({ at }) => at);
  it('are chosen with their piece by pointing at them, and their piece alone by its line', () => {
    const bench = new HandBench('points').set([1001, 501]);
    expect([bench.tool.state, bench.said]).toEqual([{ point: 'q' }, ['choose e']]);
    expect(new HandBench('points').set([400, 503])).toMatchObject({
      tool: { state: { point: undefined } },
      said: ['choose e'],
    });
    expect(new HandBench('points').set([400, 700]).said).toEqual(['choose undefined']);
  });
  it('that lie over each other are gone through', () => {
    const bench = new HandBench('points');
    const [view] = bench.history.job.views;
    const twin = {
      ...view!,
      points: [...view!.points, { id: 'twin', at: [1002, 501] as const, sigma: 1 }],
      evidence: [...view!.evidence, { ...view!.evidence[0]!, id: 'f', groups: [['p', 'twin']] }],
    };
    bench.history = { ...bench.history, job: { ...bench.history.job, views: [twin] } };
    const steps = [bench.set([1000, 500]), ...[1, 2].map(() => bench)].map(
      (at, i) => (i > 0 && at.give({ kind: 'another' }), (at.tool.state as { point: string }).point),
    );
    expect(steps).toEqual(['q', 'twin', 'q']);
    expect(bench.said).toEqual(['choose e', 'choose f', 'choose e']);
  });
  it('follow the pointer in one step of the history, and move to where is pointed next', () => {
    const bench = new HandBench('points');
    const at = (x: number, y: number) => ({ aim: bench.aim(x, y), reach: 0 });
    bench.give(
      { kind: 'grab', ...at(1000, 500) },
      { kind: 'drag', ...at(1100, 500) },
      { kind: 'drag', ...at(1200, 500) },
      { kind: 'drop', ...at(1250, 500) },
    );
    expect(points(bench)[1]).toEqual([1250, 500]);
    expect(bench.history.cursor).toBe(3);
    expect(points(bench.set([1300, 600]))[1]).toEqual([1300, 600]);
    expect(points(bench.give({ kind: 'nudge', by: [0, -1], sigma: 1 }))[1]).toEqual([1300, 599]);
  });
});
