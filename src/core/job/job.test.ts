import fc from 'fast-check';
import {
  addEvidence,
  changeSiting,
  setOnPlane,
  unseeFeature,
  setSide,
  removeSpan,
  addFeature,
  addMade,
  changeEvidence,
  findLock,
  layOnPlane,
  mirrorView,
  pointAgain,
  renameView,
  setCleaning,
  setFrame,
  setLocked,
  setSheetKind,
  setTrustTilt,
  shareFit,
  together,
  turnView,
  addGuide,
  addLayer,
  addOutline,
  addRelations,
  addSheet,
  changeLayer,
  createJob,
  createView,
  joinOutlines,
  movePoint,
  moveToLayer,
  nudgeOutline,
  groundOf,
  readJob,
  redo,
  removeEvidence,
  removeLayer,
  removeOutlines,
  removeView,
  renameJob,
  runCommand,
  setDatum,
  setHidden,
  setLift,
  setLook,
  setModel,
  setUnits,
  startHistory,
  undo,
  type Command,
  type Evidence,
  type EvidencePoint,
  type Job,
  type Sheet,
} from '.';
import type { Opening, Outline, Siting } from '../outline';

const sheet: Sheet = {
  id: 's',
  name: 'blade',
  picture: 'a'.repeat(64),
  mediaType: 'image/jpeg',
  bytes: 10,
  width: 4032,
  height: 3024,
  kind: 'photo',
  taken: {},
};
const view = createView('v', sheet);
const evidence: Evidence = {
  id: 'e',
  kind: 'length',
  groups: [['p', 'q']],
  said: { length: { value: 85.6, written: '85.6' } },
  guess: false,
  role: 'use',
};
const ends: readonly EvidencePoint[] = [
  { id: 'p', at: [1, 2], sigma: 1 },
  { id: 'q', at: [300, 2], sigma: 1 },
];
const circle = (id: string, layer = 'outline'): Outline => ({
  shape: 'circle',
  id,
  layer,
  plane: 'v',
  by: { kind: 'two', a: { kind: 'pointed', at: [10, 10], sigma: 1 }, b: { kind: 'pointed', at: [20, 10], sigma: 1 } },
});
const job = (): Job => createJob('j', 'Job', new Date(0));

const commands: readonly Command[] = [
  addSheet(sheet, view),
  renameJob('Blade'),
  setUnits({ style: 'inch', denominator: 32 }),
  addEvidence('v', evidence, ends),
  movePoint('v', { id: 'q', at: [310, 2], sigma: 1 }),
  setModel('v', 'affine', 'none'),
  removeEvidence('v', 'e'),
  addOutline(circle('o')),
  addOutline(circle('p')),
  removeOutlines(['o']),
  addLayer({ id: 'holes', name: 'Holes', color: 'ink', show: true, lock: false }),
  moveToLayer(['p'], 'holes'),
  removeLayer('holes'),
  changeLayer({ id: 'outline', name: 'Cut', color: 'berry', show: false, lock: true }),
  setHidden('v', true),
  setLook('v', { opacity: 0.5, contrast: 1, grey: true }),
  setLift('v', 2.24),
  setLift('v', undefined),
  setDatum('v', { origin: [5, 5], direction: 0.1 }),
  addGuide({ id: 'g', plane: 'v', through: { kind: 'pointed', at: [1, 1], sigma: 1 }, angle: 0, offset: 0 }),
  removeView('v'),
];

describe('the history', () => {
  it('goes all the way back and forth to the same jobs, whatever was done', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...commands), { maxLength: 30 }), (list) => {
        const states = [startHistory(job())];
        for (const command of list) states.push(runCommand(states.at(-1)!, command));
        let history = states.at(-1)!;
        const done = history.job;
        while (history.cursor > 0) history = undo(history);
        expect(history.job).toEqual(job());
        while (history.cursor < history.entries.length) history = redo(history);
        expect(history.job).toEqual(done);
      }),
    );
  });

  it('survives being written as JSON', () => {
    let history = commands.slice(0, 8).reduce(runCommand, startHistory(job()));
    history = JSON.parse(JSON.stringify(history)) as typeof history;
    while (history.cursor > 0) history = undo(history);
    expect(history.job).toEqual(job());
  });

  it('forgets what was undone when something else is done, and keeps still when nothing changes', () => {
    const two = [commands[0]!, commands[1]!].reduce(runCommand, startHistory(job()));
    const other = runCommand(undo(two), renameJob('Bench'));
    expect(other.entries).toHaveLength(2);
    expect(redo(other)).toBe(other);
    expect(runCommand(other, renameJob('Bench'))).toBe(other);
  });

  it('takes a slider on its way, or a held nudge, as one step', () => {
    const start = runCommand(startHistory(job()), commands[0]!);
    const slid = [0.9, 0.7, 0.4].reduce(
      (history, opacity) => runCommand(history, setLook('v', { opacity, contrast: 1, grey: false })),
      start,
    );
    expect(slid.entries).toHaveLength(2);
    expect(undo(slid).job).toEqual(start.job);
    const drawn = runCommand(slid, addOutline(circle('o')));
    const nudged = [1, 2, 3].reduce(
      (history) => runCommand(history, nudgeOutline({ ...circle('o') }, 'point-moved')),
      drawn,
    );
    expect(nudged.entries).toHaveLength(4);
    expect(undo(nudged).job).toEqual(drawn.job);
  });

  it('takes another figure of the same thing as another step, and the same figure again as the same one', () => {
    const says = (off: number, along: number): Siting => ({
      id: 's',
      plane: 'v',
      of: 'w',
      holds: [
        { id: 'off', kind: 'off', own: { outline: 'o' }, to: { outline: 'p' }, value: off },
        { id: 'along', kind: 'along', own: { outline: 'o' }, to: { outline: 'p' }, value: along },
      ],
      put: { at: [0, 0], turn: 0 },
    });
    const said = [says(1400, 5200), says(1500, 5200), says(1900, 5200), says(1900, 17_000)];
    const [first, ...later] = said as [Siting, ...Siting[]];
    const start = runCommand(startHistory(job()), setOnPlane(first, []));
    const done = later.reduce((history, next) => runCommand(history, changeSiting(next, 'hold-changed')), start);
    expect(done.entries).toHaveLength(start.entries.length + 2);
    expect(undo(done).job.sitings).toEqual([says(1900, 5200)]);
    expect(undo(undo(done)).job.sitings).toEqual([first]);
    expect(redo(redo(undo(undo(done)))).job).toEqual(done.job);
  });

  it('takes a thing that is moved one way and then the other as one step', () => {
    const at = (x: number, y: number): Siting => ({
      id: 's',
      plane: 'v',
      of: 'w',
      holds: [],
      put: { at: [x, y], turn: 0 },
    });
    const start = runCommand(startHistory(job()), setOnPlane(at(0, 0), []));
    const moved = [at(1, 0), at(1, 1), at(1, 2)].reduce(
      (history, next) => runCommand(history, changeSiting(next, 'siting-moved')),
      start,
    );
    expect(moved.entries).toHaveLength(start.entries.length + 1);
    expect(undo(moved).job).toEqual(start.job);
  });
});

describe('commands', () => {
  const base = commands.slice(0, 1).reduce(runCommand, startHistory(job()));
  it('of a locked view say that they are kept from its fit, its axes and its picture; what is drawn on it goes on', () => {
    const sharing = { ...createView('w', sheet), shares: 'v' };
    const locked = (id: string): Pick<Job, 'views'> => ({
      views: [view, sharing, createView('x', { ...sheet, id: 't' })].map((each) => ({
        ...each,
        locked: each.id === id,
      })),
    });
    const placing = [
      addEvidence('v', evidence, ends),
      changeEvidence('v', evidence),
      removeEvidence('v', 'e'),
      movePoint('v', ends[0]!),
      pointAgain('v', ends),
      setLift('v', 2),
      setModel('v', 'affine', 'none'),
      setDatum('v', { origin: [5, 5], direction: 0 }),
      turnView('v', 1),
      mirrorView('v'),
      setFrame('v', undefined),
      setCleaning('v', [], 'cleaned'),
      shareFit('v', undefined),
      layOnPlane('v', 'site', [], []),
      removeView('v'),
      setSheetKind('s', 'scan'),
      setTrustTilt('s', true),
    ];
    for (const command of placing)
      expect([command.name.code, findLock(locked('v'), command)?.id, findLock(locked('x'), command)]).toEqual([
        command.name.code,
        'v',
        undefined,
      ]);
    // Among several that are one step, one is enough; and a lock on a view holds the fit that it shares.
    expect(findLock(locked('v'), together([renameJob('Blade'), setLift('v', 2), renameJob('Blade')]))).toMatchObject({
      id: 'v',
    });
    expect(
      [addEvidence('v', evidence, ends), setLift('v', 2)].map((command) => findLock(locked('w'), command)?.id),
    ).toEqual(['w', 'w']);
    expect(findLock(locked('w'), turnView('v', 1))).toBeUndefined();
    // Views that are fitted together move together: what is said of one, or of what they share, is kept from all of them.
    const joined = (id: string) => ({ views: locked(id).views.map((each) => ({ ...each, joins: each.id !== 'x' })) });
    const shared = [
      addFeature({ id: 'f', name: 'Base', along: 'up', said: {}, seen: [] }),
      unseeFeature('f', 's'),
      removeSpan('n'),
      setSide('v', 'front'),
    ];
    expect([...shared, setLift('v', 2)].map((command) => findLock(joined('w'), command)?.id)).toEqual(
      Array.from({ length: 5 }, () => 'w'),
    );
    expect([...shared, setLift('v', 2)].map((command) => findLock(joined('x'), command))).toEqual(
      Array.from({ length: 5 }, () => undefined),
    );
    for (const command of [
      addOutline(circle('o')),
      renameView('v', 'Front'),
      setHidden('v', true),
      setLocked('v', false),
      setLook('v', { opacity: 1, contrast: 1, grey: false }),
      addGuide({ id: 'g', plane: 'v', through: { kind: 'pointed', at: [1, 1], sigma: 1 }, angle: 0, offset: 0 }),
      renameJob('x'),
    ]) {
      expect(findLock(locked('v'), command)).toBeUndefined();
    }
  });

  it('share points between pieces, and take a point away with the last piece that stands on it', () => {
    const both = [
      addEvidence('v', evidence, ends),
      addEvidence('v', { ...evidence, id: 'f', kind: 'level', groups: [['q', 'r']] }, [
        ...ends,
        { id: 'r', at: [5, 5], sigma: 1 },
      ]),
    ].reduce(runCommand, base);
    const pointIds = (history: typeof base) => history.job.views[0]!.points.map(({ id }) => id);
    expect(pointIds(both)).toEqual(['p', 'q', 'r']);
    expect(pointIds(runCommand(both, removeEvidence('v', 'e')))).toEqual(['q', 'r']);
  });

  it('change one view and leave every other bit for bit', () => {
    const other = createView('w', sheet);
    const both = runCommand(base, addSheet({ ...sheet, id: 't' }, { ...other, sheet: 't' }));
    const before = both.job.views[1];
    for (const command of [
      addEvidence('v', evidence, ends),
      setHidden('v', true),
      setDatum('v', { origin: [1, 1], direction: 1 }),
      setLift('v', 3),
    ])
      expect(runCommand(both, command).job.views[1]).toBe(before);
  });

  it('move what is on a layer before it goes, and keep the last layer', () => {
    const drawn = [
      addLayer({ id: 'holes', name: 'Holes', color: 'ink', show: true, lock: false }),
      addOutline(circle('o', 'holes')),
    ].reduce(runCommand, base);
    expect(runCommand(drawn, removeLayer('holes')).job.outlines[0]!.layer).toBe('outline');
    expect(runCommand(base, removeLayer('outline')).job.layers).toHaveLength(1);
  });

  it('take everything on a picture with it', () => {
    const drawn = [addOutline(circle('o')), commands[17]!].reduce(runCommand, base);
    expect(runCommand(drawn, removeView('v')).job).toMatchObject({ sheets: [], views: [], outlines: [], guides: [] });
  });
});

it('brings a job of version 1 up: its lengths get points with names', () => {
  const { points: _points, model: _model, lens: _lens, ...old } = view;
  const length = {
    id: 'e',
    kind: 'length',
    from: { at: [1, 2], sigma: 1 },
    to: { at: [300, 2], sigma: 1 },
    mm: 85.6,
    plusMinus: 0.2,
    guess: false,
    check: true,
    written: '85.6 ± 0.2',
  };
  const read = readJob({ ...job(), version: 1, sheets: [sheet], views: [{ ...old, evidence: [length] }] });
  expect(read).toMatchObject({
    ok: true,
    value: {
      version: 17,
      references: [],
      relations: [],
      parts: [],
      declined: [],
      views: [
        {
          model: 'auto',
          points: [
            { id: 'e-from', at: [1, 2], sigma: 1 },
            { id: 'e-to', at: [300, 2], sigma: 1 },
          ],
          evidence: [
            {
              kind: 'length',
              groups: [['e-from', 'e-to']],
              said: { length: { value: 85.6, written: '85.6 ± 0.2' } },
              plusMinus: 0.2,
              role: 'check',
            },
          ],
        },
      ],
    },
  });
});

it('brings a job of version 7 up: openings name the corner that they are counted from', () => {
  const nodes = ['p', 'q', 'r'].map((id) => ({ id, smooth: false, place: { kind: 'pointed', at: [0, 0], sigma: 1 } }));
  const openings = [
    { id: 'a', outline: 'c', segment: 'q', from: 'start', distance: 4, width: 5 },
    { id: 'b', outline: 'c', segment: 'r', from: 'end', distance: 6, width: 7 },
  ];
  const owned = { layer: 'outline', view: 'v' };
  const read = readJob({
    ...job(),
    version: 7,
    sheets: [sheet],
    views: [view],
    outlines: [
      { ...owned, shape: 'chain', id: 'c', closed: true, nodes, segments: nodes.map(() => ({ kind: 'line' })) },
      {
        ...owned,
        shape: 'made',
        id: 'w',
        recipe: { kind: 'strip', of: ['c'], width: 1, justified: 'middle', ends: 'flat', corners: 'mitre', openings },
      },
    ],
  });
  expect(read).toMatchObject({
    ok: true,
    value: {
      outlines: [
        {},
        {
          recipe: {
            openings: [
              { id: 'a', corner: 'q', way: 'on', distance: 4, width: 5 },
              { id: 'b', corner: 'p', way: 'back', distance: 6, width: 7 },
            ],
          },
        },
      ],
    },
  });
});

it('brings a job of version 8 up: what was drawn on views is on their planes, which lie where the views were laid', () => {
  const { plane: _plane, ...old } = view;
  const reference = { id: 'f', name: 'Survey', file: 'b'.repeat(64), bytes: 1, format: 'dxf', shown: true };
  const guide = { id: 'g', view: 'w', through: { kind: 'pointed', at: [1, 1], sigma: 1 }, angle: 0, offset: 0 };
  const read = readJob({
    ...job(),
    version: 8,
    sheets: [sheet],
    views: [old, { ...old, id: 'w', plane: 'site' }, { ...old, id: 'x', plane: 'v' }],
    guides: [guide],
    references: [
      { ...reference, plane: 'site', hiddenLayers: [] },
      { ...reference, id: 'l', plane: 's', hiddenLayers: [] },
    ],
  });
  if (!read.ok) throw new Error(read.code);
  const { views, planes, guides } = read.value;
  expect(views.map(({ plane }) => plane)).toEqual(['v', 'w', 'x']);
  expect(planes).toEqual([
    { id: 'v' },
    { id: 'w', liesOn: 'site' },
    { id: 'x', liesOn: 'v' },
    { id: 'site' },
    { id: 's' },
  ]);
  expect(guides).toMatchObject([{ id: 'g', plane: 'w' }]);
  expect(['v', 'w', 'x', 'site', 'nowhere'].map((id) => groundOf(read.value, id))).toEqual([
    'v',
    'site',
    'v',
    'site',
    'nowhere',
  ]);
});

it('what is said of a segment is said of it still when its chain is turned round or goes into another', () => {
  const chain = (id: string, nodes: readonly string[]) => ({
    shape: 'chain' as const,
    id,
    layer: 'outline',
    plane: 'v',
    closed: false,
    segments: nodes.slice(1).map(() => ({ kind: 'line' as const })),
    nodes: nodes.map((node, i) => ({
      id: node,
      smooth: false,
      place: { kind: 'pointed' as const, at: [10 * i, 0] as const, sigma: 1 },
    })),
  });
  const level = { id: 'r', plane: 'v', kind: 'level' as const, on: [{ outline: 'b', segment: 'x' }] };
  const start = [
    commands[0]!,
    addOutline(chain('a', ['p', 'q'])),
    addOutline(chain('b', ['x', 'y', 'z'])),
    addRelations([level]),
  ].reduce(runCommand, startHistory(job()));
  const joined = runCommand(start, joinOutlines(chain('a', ['p', 'q', 'z', 'y', 'x']), 'b')).job;
  expect(joined.relations[0]!.on).toEqual([{ outline: 'a', segment: 'y' }]);
  const opening: Opening = {
    id: 'd',
    corner: 'y',
    way: 'on',
    distance: 3,
    width: 2,
    fill: { kind: 'door', frame: 0, leaf: 1, leaves: 1, hung: { at: 'start', to: 'left', open: 1 } },
  };
  const wall = {
    shape: 'made' as const,
    id: 'w',
    layer: 'outline',
    plane: 'v',
    recipe: {
      kind: 'strip' as const,
      of: ['b'],
      width: 1,
      justified: 'middle' as const,
      ends: 'flat' as const,
      corners: 'mitre' as const,
      openings: [opening],
    },
  };
  const walled = runCommand(
    runCommand(start, addMade(wall, true)),
    joinOutlines(chain('a', ['p', 'q', 'z', 'y', 'x']), 'b'),
  ).job.outlines.at(-1);
  expect(walled).toMatchObject({
    recipe: {
      of: ['a'],
      openings: [{ corner: 'y', way: 'back', distance: 3, fill: { hung: { at: 'end', to: 'right' } } }],
    },
  });
  expect(runCommand(start, removeOutlines(['b'])).job.relations).toEqual([]);
});

describe('a job that is read', () => {
  const whole = [commands[0]!, addEvidence('v', evidence, ends), addOutline(circle('o'))].reduce(
    runCommand,
    startHistory(job()),
  ).job;
  it('is equal to the one that was written', () =>
    expect(readJob(JSON.parse(JSON.stringify(whole)))).toEqual({ ok: true, value: whole }));
  it.each([
    [null, 'job-not-ours'],
    ['text', 'job-not-ours'],
    [{ format: 'other' }, 'job-not-ours'],
    [{ ...whole, version: 0 }, 'job-not-ours'],
    [{ ...whole, version: 99 }, 'job-newer'],
    [{ ...whole, layers: [] }, 'job-damaged'],
    [{ ...whole, layers: whole.layers.map((layer) => ({ ...layer, liesAt: 'nowhere' })) }, 'job-damaged'],
    [{ ...whole, layers: whole.layers.map((layer) => ({ ...layer, risesTo: 'nowhere' })) }, 'job-damaged'],
    [{ ...whole, outlines: [circle('o', 'nowhere')] }, 'job-damaged'],
    [{ ...whole, views: [{ ...view, sheet: 'nowhere' }] }, 'job-damaged'],
    [
      {
        ...whole,
        outlines: [
          {
            shape: 'chain',
            id: 'c',
            layer: 'outline',
            plane: 'v',
            closed: true,
            nodes: [],
            segments: [{ kind: 'line' }],
          },
        ],
      },
      'job-damaged',
    ],
    [{ ...whole, views: [{ ...view, evidence: [{ ...evidence, mm: -1 }] }] }, 'job-damaged'],
    ...[[], [[]], [['p']], [Array.from({ length: 201 }, () => 'p')]].map((groups): [object, string] => [
      { ...whole, views: [{ ...whole.views[0], evidence: [{ ...whole.views[0]!.evidence[0], groups }] }] },
      'job-damaged',
    ]),
    [{ ...whole, outlines: [circle('o'), circle('o')] }, 'job-damaged'],
    [{ ...whole, views: [whole.views[0], whole.views[0]] }, 'job-damaged'],
    [{ ...whole, layers: [{ ...whole.layers[0], id: '' }] }, 'job-damaged'],
  ])('is refused when it is %p', (json, code) => expect(readJob(json)).toMatchObject({ ok: false, code }));
  it('is refused when its places stand on one another thousands deep', () => {
    let place: object = { kind: 'pointed', at: [0, 0], sigma: 1 };
    for (let i = 0; i < 20_000; i++) place = { kind: 'shifted', from: place, by: [1, 0], seen: [0, 0] };
    expect(readJob({ ...whole, guides: [{ id: 'g', plane: 'v', through: place, angle: 0 }] })).toMatchObject({
      ok: false,
      code: 'job-damaged',
    });
  });
});
