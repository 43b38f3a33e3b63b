/** Makes the demo jobs from a scene's truth: what a steady hand would have pointed at, off by a fraction of a pixel. */
import { readFileSync } from 'node:fs';
import { sha256Hex } from '../src/core/pictures';
import { createJob, createView, type Job, type Sheet } from '../src/core/job';
import type { Chain, CircleOutline, Node, Segment, SegmentKind } from '../src/core/outline';
import { known, length, pointed, sheetOf, withEvidence, write, type Px } from './hand';
import { writeCards } from './cards';
import { benchJob } from './jobs-bench';
import { drawnJobs } from './jobs-drawn';
import { glasshouseJob } from './jobs-glasshouse';
import { orchardJob } from './jobs-orchard';
import { trowelJob } from './jobs-trowel';
import type { truthOf, truthOfNestBox } from './truth';

type Truth = ReturnType<typeof truthOf>;
type NestBoxTruth = ReturnType<typeof truthOfNestBox>;

const truthFile = (name: string): unknown => JSON.parse(readFileSync(`demo/truth/${name}.json`, 'utf8'));
const truth = truthFile('blade') as Truth;
const slantedTruth = truthFile('blade-slanted') as Truth;
const nestBoxTruth = truthFile('nest-box') as NestBoxTruth;
const sheet = sheetOf('blade', 'Pruner blade', 'photo', truth.picture);

function bladeOutline(): Chain {
  const { start, strokes } = truth.blade;
  const kinds: SegmentKind[] = ['line', 'tangent', 'curve', 'arc', 'arc', 'line', 'arc'];
  const places = [start.px, ...strokes.slice(0, -1).map((stroke) => stroke.to.px)];
  const away = (from: Px, to: Px): Px => [to[0] - from[0], to[1] - from[1]];
  const nodes = places.map((px, i): Node => {
    const [before, after] = [strokes[(i + strokes.length - 1) % strokes.length]!, strokes[i]!];
    const handleIn = before.kind === 'curve' ? { handleIn: away(px, before.in!.px) } : {};
    const handleOut = after.kind === 'curve' ? { handleOut: away(px, after.out!.px) } : {};
    return { id: `blade-${i}`, place: pointed(px), smooth: false, ...handleIn, ...handleOut };
  });
  const segments = kinds.map((kind, i): Segment =>
    kind === 'arc' ? { kind, through: pointed(strokes[i]!.through!.px) } : { kind },
  );
  return { shape: 'chain', id: 'blade-outline', layer: 'outline', plane: 'blade-view', closed: true, nodes, segments };
}

function holeOutline(hole: Truth['blade']['holes'][number], i: number): CircleOutline {
  const [right, , left] = hole.rimPx;
  return {
    shape: 'circle',
    id: `blade-hole-${i}`,
    layer: 'holes',
    plane: 'blade-view',
    by: { kind: 'two', a: pointed(right!), b: pointed(left!) },
  };
}

const made = new Date('2026-05-14T10:30:00Z');
const view = createView('blade-view', sheet);
const start: Job = { ...createJob('blade-start', 'Pruner blade', made), tour: 'blade', sheets: [sheet], views: [view] };
write('blade-start', start);

const marksOf = ({ rule }: Truth) => new Map(rule.marks.map(({ mark, px }) => [mark, px]));
const marks = marksOf(truth);
const { card } = truth;
const { holes } = truth.blade;
/** Zero in the first hole, level along the row of holes: as the blade lies on the machine. */
const alongHoles = {
  origin: holes[0]!.px,
  direction: Math.atan2(holes[1]!.px[1] - holes[0]!.px[1], holes[1]!.px[0] - holes[0]!.px[0]),
};
const finished: Job = {
  ...start,
  id: 'blade-finished',
  name: 'Pruner blade, finished',
  tour: undefined,
  views: [
    withEvidence({ ...view, locked: true, datum: alongHoles, lift: truth.blade.rim - card.rim }, [
      known('card', 'rectangle', card.sidesPx, { width: 85.6, height: 53.98 }, { name: 'bank card', plusMinus: 0.15 }),
      length('rule', marks.get(20)!, marks.get(260)!, 240, { name: 'steel rule', plusMinus: 0.2 }),
      known(
        'edge',
        'straight',
        [[0, 20, 240, 260, 300].map((mark) => marks.get(mark)!)],
        {},
        { name: "the rule's lower edge" },
      ),
      known('upper-edge', 'straight', [truth.rule.upperEdgePx], {}, { name: "the rule's upper edge" }),
      length('drill', holes[2]!.rimPx[0]!, holes[2]!.rimPx[2]!, holes[2]!.diameter, {
        role: 'check',
        onTraced: true,
        name: 'the bolt hole, by its drill',
      }),
    ]),
  ],
  layers: [...start.layers, { id: 'holes', name: 'Holes', color: 'ink', show: true, lock: false }],
  outlines: [bladeOutline(), ...truth.blade.holes.map(holeOutline)],
};
write('blade-finished', finished);

/** Slanted, and bowed by the lens; the customer's message gives one distance wrong. */
const slantedSheet = sheetOf('blade-slanted', 'Pruner blade from aside', 'photo', slantedTruth.picture);
const slantedMarks = marksOf(slantedTruth);
const [firstHole, , , lastHole] = slantedTruth.blade.holes;
const rim = slantedTruth.blade.rim;
const message = length('message', firstHole!.px, lastHole!.px, 137, {
  name: 'from the message: first to last hole',
  onTraced: true,
});
write('blade-slanted', {
  ...createJob('blade-slanted', 'Pruner blade, slanted', made),
  sheets: [slantedSheet],
  views: [
    {
      ...withEvidence(createView('slanted-view', slantedSheet), [
        known(
          'card',
          'rectangle',
          slantedTruth.card.sidesPx,
          { width: 85.6, height: 53.98 },
          { name: 'bank card', plusMinus: 0.15 },
        ),
        length('rule', slantedMarks.get(20)!, slantedMarks.get(260)!, 240, { name: 'steel rule' }),
        known(
          'edge',
          'straight',
          [[0, 20, 240, 260, 300].map((mark) => slantedMarks.get(mark)!)],
          {},
          { name: "the rule's lower edge" },
        ),
        known('upper-edge', 'straight', [slantedTruth.rule.upperEdgePx], {}, { name: "the rule's upper edge" }),
        message,
      ]),
      lift: rim - slantedTruth.card.rim,
    },
  ],
});

/** Printed "to fit the page" and laid askew; one printed figure is wrong. */
const nestBoxSheet = sheetOf('nest-box', 'Nest box', 'drawing', nestBoxTruth.picture);
write('nest-box', {
  ...createJob('nest-box', 'Nest box', made),
  sheets: [nestBoxSheet],
  views: [
    withEvidence(createView('nest-box-view', nestBoxSheet), [
      ...nestBoxTruth.sizes.map(({ name, from, to, printed }, i) =>
        length(`size-${i}`, from, to, printed, { name, plusMinus: 0.2 }),
      ),
      known(
        'base',
        'level',
        [[nestBoxTruth.sizes[0]!.from, nestBoxTruth.sizes[0]!.to]],
        { angle: 0 },
        { name: 'the base' },
      ),
      known(
        'hole',
        'circle',
        [nestBoxTruth.hole.rimPx],
        { diameter: nestBoxTruth.hole.diameter },
        { name: 'hole', plusMinus: 0.2 },
      ),
    ]),
  ],
});

/** A survey that a sketch belongs on, and the sketch: two taps on each lay it there. */
const pondFile = readFileSync('public/demo/pond.dxf');
const stonesSheet: Sheet = {
  ...sheetOf('stones', 'Stepping stones', 'scan', { width: 1754, height: 1240 }),
  taken: {},
};
write('pond', {
  ...createJob('pond', 'Pond: a sketch onto a survey', made),
  tour: 'pond',
  sheets: [stonesSheet],
  views: [createView('stones-view', stonesSheet)],
  site: { zero: [0, 0] },
  references: [
    {
      id: 'pond-survey',
      name: 'Pond survey',
      file: sha256Hex(pondFile),
      bytes: pondFile.length,
      format: 'dxf',
      plane: 'site',
      shown: true,
      hiddenLayers: [],
    },
  ],
});

/** Three sides of one thing, each with its own photo and its own card. */
const canSheets = (['front', 'side', 'top'] as const).map((side) => ({
  side,
  sheet: sheetOf(`can-${side}`, `Watering can, ${side}`, 'photo', { width: 1800, height: 1350 }),
}));
write('can', {
  ...createJob('can', 'Watering can, three sides', made),
  sheets: canSheets.map(({ sheet: one }) => one),
  views: canSheets.map(({ side, sheet: one }) => ({
    ...createView(`can-${side}-view`, one),
    name: `Can, ${side}`,
    side: ({ front: 'front', side: 'right', top: 'top' } as const)[side],
  })),
});

for (const [name, job] of drawnJobs({
  outlines: [bladeOutline(), ...truth.blade.holes.map(holeOutline)],
  blade: finished,
  made,
}))
  write(name, job);

write('bench-views', benchJob(made));
write('trowel', trowelJob(made));
write('orchard', orchardJob(made));
write('glasshouse', glasshouseJob(made));

/** Nothing in it yet: files of every kind stand ready to be brought in. */
write('sources', { ...createJob('sources', 'Bring things in', made), tour: 'sources' });

writeCards();
