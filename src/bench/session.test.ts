import fc from 'fast-check';
import { createDeriver } from '@/core/derive';
import { ALL, benchOf, joining } from '@/core/derive/bench-for-tests';
import type { Vec } from '@/core/geometry';
import {
  addSheet,
  createJob,
  createView,
  runCommand,
  setLookOnly,
  startHistory,
  turnView,
  type Job,
  type Sheet,
} from '@/core/job';
import type { JobStore } from '@/store';
import type { PictureEdges } from './edges';
import { Session } from './session';
import { TOOLS, type ToolName } from './tools';
import { toScreen } from './viewport';

const sheet: Sheet = {
  id: 's',
  name: 's',
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 4000,
  height: 3000,
  kind: 'photo',
  taken: {},
};

/** Sittings over a job that nothing changes. */
function sittingsOver(job: Job): () => Session {
  const state = {
    job,
    derived: createDeriver()(job),
    readOnly: undefined,
    setDraft: () => undefined,
    run: () => undefined,
  };
  return () => new Session({ getState: () => state } as unknown as JobStore, null);
}
const sessionOver = (job: Job): Session => sittingsOver(job)();

/** A sitting over an empty photo, and a picture of which nothing is at hand until `arrive` is called; then there is a corner at (1003, 1002). */
function sitDown() {
  const { job } = runCommand(startHistory(createJob('j', 'Job', new Date(0))), addSheet(sheet, createView('v', sheet)));
  const session = sessionOver(job);
  session.chooseView('v');
  session.framing.setRoom({ width: 400, height: 300 });
  session.chooseTool('distance');
  let here = false;
  let arrive = () => undefined as void;
  const arrival = new Promise<void>(
    (resolve) =>
      (arrive = () => {
        here = true;
        resolve();
      }),
  );
  const corner = (at: Vec) =>
    here && Math.hypot(at[0] - 1003, at[1] - 1002) < 60 ? { at: [1003, 1002] as const, sigma: 0.3 } : undefined;
  session.setEdges({
    find: () => undefined,
    findCorner: corner,
    coming: () => (here ? undefined : arrival),
  } as unknown as PictureEdges);
  const placed = () => {
    const { tool } = session.getState();
    return tool.name === 'distance' ? tool.state.points.map(({ at, sigma }) => ({ at, sigma })) : [];
  };
  const screenOf = (at: Vec) => toScreen(session.getState().viewport, at);
  return {
    session,
    placed,
    screenOf,
    arrive: async () => {
      arrive();
      await arrival;
      await Promise.resolve();
    },
  };
}

describe('a point that is set before its part of the picture has come', () => {
  it('is caught by what lies there as soon as it has', async () => {
    const { session, placed, screenOf, arrive } = sitDown();
    session.aimAtScreen(screenOf([1000, 1000]), 'touch', 1);
    session.lift(screenOf([1000, 1000]), 1);
    expect(placed()).toEqual([]);
    await arrive();
    expect(placed()).toEqual([{ at: [1003, 1002], sigma: 0.3 }]);
  });

  it('lies where it was pointed at, whatever was moved and zoomed in the meantime', async () => {
    const { session, placed, screenOf, arrive } = sitDown();
    session.aimAtScreen(screenOf([1000, 1000]), 'mouse');
    session.setAtAim();
    session.framing.pan([120, -40]);
    session.framing.zoom([200, 150], 4);
    await arrive();
    expect(placed().map(({ at }) => at)).toEqual([[1003, 1002]]);
  });

  it('is not lost when the line goes on as an arc before it is set', () => {
    const { session, screenOf } = sitDown();
    session.changeTool('chain', { kind: 'line' });
    for (const at of [
      [1000, 1000],
      [2000, 1500],
    ] as const) {
      session.aimAtScreen(screenOf(at), 'mouse');
      session.setAtAim();
    }
    session.changeTool('chain', { kind: 'arc', through: undefined });
    const { tool } = session.getState();
    expect(tool).toMatchObject({ name: 'chain', state: { kind: 'arc' } });
    expect(tool.name === 'chain' && tool.state.nodes).toHaveLength(2);
  });

  it('goes before the next one, with nothing to catch it', () => {
    const { session, placed, screenOf } = sitDown();
    for (const at of [
      [1000, 1000],
      [2000, 1500],
    ] as const) {
      session.aimAtScreen(screenOf(at), 'mouse');
      session.setAtAim();
    }
    session.input({ kind: 'release' });
    expect(placed().map(({ at: [x, y] }) => [Math.round(x), Math.round(y)])).toEqual([
      [1000, 1000],
      [2000, 1500],
    ]);
  });
});

it('a finger that was held still before it was lifted points better than one that was not', () => {
  const { session, screenOf } = sitDown();
  session.setEdges(undefined);
  const sigmaAfter = (unaided: number) => {
    session.aimAtScreen(screenOf([3000, 2000]), 'touch', 1);
    session.lift(screenOf([3000, 2000]), unaided);
    return session.getState().aim!.sigma;
  };
  expect(sigmaAfter(1) / sigmaAfter(0)).toBeGreaterThan(4);
});

describe('over a locked view', () => {
  const openedWith = (locked: boolean) => {
    const { job } = runCommand(
      startHistory(createJob('j', 'Job', new Date(0))),
      addSheet(sheet, { ...createView('v', sheet), name: 'Blade', locked }),
    );
    const session = sessionOver(job);
    session.chooseView('v');
    return session;
  };
  const takings: readonly (readonly [string, (session: Session) => void])[] = [
    ['evidence', (session) => session.pointAtEvidence('length')],
    ['datum', (session) => session.chooseTool('datum')],
    ['level', (session) => session.chooseTool('level')],
    ['match', (session) => session.chooseTool('match')],
    ['brush', (session) => session.chooseTool('brush')],
    ['frame', (session) => session.frame({ purpose: 'crop', shape: 'box', points: [], last: 0 })],
  ];

  it.each(takings)('%s is not taken in hand, and it is said why', (name, take) => {
    const [locked, open] = [openedWith(true), openedWith(false)];
    take(locked);
    expect(locked.getState()).toMatchObject({
      tool: { name: 'select' },
      notice: { code: 'view-is-locked', detail: { id: 'v', name: 'Blade' } },
    });
    take(open);
    expect(open.getState()).toMatchObject({ tool: { name }, notice: undefined });
  });

  it('what draws, measures or cuts a further view out is', () => {
    const session = openedWith(true);
    for (const name of ['chain', 'circle', 'distance', 'guide', 'relate', 'region'] as const) {
      session.chooseTool(name);
      expect(session.getState()).toMatchObject({ tool: { name }, notice: undefined });
    }
    session.frame({ purpose: 'cut', shape: 'box', points: [], last: 0 });
    expect(session.getState()).toMatchObject({ tool: { name: 'frame' }, notice: undefined });
  });
});

describe('what comes to lie over the bench', () => {
  const covered = { width: 400, height: 300, insets: { top: 0, bottom: 180, right: 0 } };

  it('moves nothing under a hand that holds the picture, and what is held is seen once it is let go', () => {
    const { session, screenOf, placed } = sitDown();
    session.framing.zoom([200, 150], 4);
    const place = [2000, 1900] as const;
    const held = screenOf(place);
    session.framing.setHeld(true);
    session.aimAtScreen(held, 'touch', 1);
    session.framing.setRoom(covered);
    expect(screenOf(place)).toEqual(held);
    session.lift(held, 1);
    session.input({ kind: 'release' });
    session.framing.setHeld(false);
    expect(placed()).toHaveLength(1);
    const [, y] = screenOf(placed()[0]!.at);
    expect(y).toBeLessThan(120);
    // The magnified patch stands where what it shows went.
    expect(session.getState().patch).toEqual(screenOf(session.getState().aim!.sheet));
  });

  it('hides nothing that is worked on: it is brought into what is left free', () => {
    const { session, screenOf } = sitDown();
    session.framing.zoom([200, 150], 12);
    session.framing.setRoom(covered);
    const { zoom } = session.getState().viewport;
    session.changeTool('distance', { points: [{ at: [3900, 2900], sigma: 1 }] });
    session.framing.keep();
    const [x, y] = screenOf([3900, 2900]);
    expect([x > 0, x < 400, y > 0, y < 120]).toEqual([true, true, true, true]);
    expect(session.getState().viewport.zoom).toBe(zoom);
  });
});

it('what was set with a finger goes to what else could have been caught there, place by place', async () => {
  const { session, placed, screenOf, arrive } = sitDown();
  await arrive();
  session.aimAtScreen(screenOf([1000, 1000]), 'touch', 1);
  session.lift(screenOf([1000, 1000]), 1);
  expect(placed()).toMatchObject([{ at: [1003, 1002] }]);
  session.catchNext();
  expect(placed()).toMatchObject([{ at: [expect.closeTo(1000, 6), expect.closeTo(1000, 6)] }]);
  session.catchNext();
  expect(placed()).toMatchObject([{ at: [expect.closeTo(1003, 6), expect.closeTo(1002, 6)], sigma: 0.3 }]);
});

it('over a picture that is kept only to look at nothing is taken in hand that draws or measures', () => {
  const { job } = runCommand(
    runCommand(startHistory(createJob('j', 'Job', new Date(0))), addSheet(sheet, createView('v', sheet))),
    setLookOnly('v', true),
  );
  const session = sessionOver(job);
  const taken = (Object.keys(TOOLS) as ToolName[]).filter((name) => {
    session.chooseTool('select');
    session.chooseTool(name);
    return session.getState().tool.name === name;
  });
  expect(taken).toEqual(['select', 'points', 'level', 'frame', 'brush']);
  expect(session.getState().notice).toMatchObject({ code: 'view-only-to-look' });
});

it('a job that is opened lies level from the first moment on', () => {
  const { job } = runCommand(
    runCommand(startHistory(createJob('j', 'Job', new Date(0))), addSheet(sheet, createView('v', sheet))),
    turnView('v', -0.2),
  );
  const session = sessionOver(job);
  session.framing.setRoom({ width: 400, height: 300 });
  const { viewport } = session.getState();
  const { direction } = job.views[0]!.datum;
  const [a, b] = [
    toScreen(viewport, [2000, 1500]),
    toScreen(viewport, [2000 + 1000 * Math.cos(direction), 1500 + 1000 * Math.sin(direction)]),
  ];
  expect(Math.abs(direction)).toBeCloseTo(0.2, 9);
  expect(b[1] - a[1]).toBeCloseTo(0, 6);
  expect(b[0]).toBeGreaterThan(a[0]);
});

it('a layer that lies at a height is drawn on in plans, and laid down where heights themselves are seen', () => {
  const made = benchOf(() => 0, []);
  const height = made.features.find(({ along }) => along === 'up')!;
  const level = { id: 'loft', name: 'Loft', color: 'plum', show: true, lock: false, liesAt: height.id } as const;
  const session = sessionOver({ ...made, layers: [...made.layers, level] });
  const drawnOn = () => session.findContext()!.layer;
  session.chooseView('plan');
  session.setLayer('loft');
  session.chooseView('plan');
  expect(drawnOn()).toBe('loft');
  session.chooseView('front');
  expect(drawnOn()).toBe(made.layers[0]!.id);
  session.chooseView('plan');
  expect(drawnOn()).toBe(made.layers[0]!.id);
});

/** Where something is that is neither a number, a word nor made of such. */
function listUnplain(value: unknown, at = ''): string[] {
  if (typeof value === 'function' || typeof value === 'symbol') return [at];
  if (typeof value !== 'object' || value === null) return [];
  if (!Array.isArray(value) && Object.getPrototypeOf(value) !== Object.prototype) return [at];
  return Object.entries(value).flatMap(([name, part]) => listUnplain(part, `${at}.${name}`));
}

it('whatever is done, what a sitting holds is plain data: no functions, nothing that a message could not carry', () => {
  const job = benchOf(() => 0, [turnView('plan', 0.1), ...joining(...ALL)]);
  const begin = sittingsOver(job);
  const views = fc.constantFrom('front', 'side', 'plan');
  const kinds = new Set<string>();
  const deeds: fc.Arbitrary<(session: Session) => void> = fc.oneof(
    views.map((id) => (session: Session) => session.chooseView(id)),
    fc
      .constantFrom(...(Object.keys(TOOLS) as ToolName[]))
      .map((name) => (session: Session) => session.chooseTool(name)),
    fc.boolean().map((straight) => (session: Session) => session.setStraight(straight)),
    fc.integer({ min: 0, max: 10 }).map((tenths) => (session: Session) => session.setGhost(tenths / 10)),
    fc
      .constantFrom(undefined, { fold: 0.5, turn: 0.2, tip: 0.3 })
      .map((folding) => (session: Session) => session.setFolding(folding)),
    fc
      .tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 300 }), fc.constantFrom('mouse', 'touch'))
      .map(([x, y, pointer]) => (session: Session) => {
        session.aimAtScreen([x, y], pointer as 'mouse' | 'touch');
        session.setAtAim();
      }),
    fc.constant((session: Session) => session.framing.zoom([200, 150], 2)),
    fc.constant((session: Session) => session.input({ kind: 'cancel' })),
  );
  fc.assert(
    fc.property(fc.array(deeds, { minLength: 1, maxLength: 12 }), (done) => {
      const session = begin();
      session.framing.setRoom({ width: 400, height: 300 });
      for (const deed of done) {
        deed(session);
        const held = session.getState();
        expect(listUnplain(held)).toEqual([]);
        kinds.add(held.viewport.laid?.kind ?? 'as taken');
      }
    }),
  );
  expect([...kinds].sort()).toEqual(['as taken', 'squared', 'turned']);
});
