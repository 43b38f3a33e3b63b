import { createJob, createView, type Job, type View } from '../src/core/job';
import type { Chain } from '../src/core/outline';
import { scanner } from './generator/scan';
import { length, pointed, sheetOf, withEvidence, type Px } from './hand';
import { line } from './jobs-bench';
import { ABOVE, onTang, TANG, TROWEL, trowelViews } from './scenes/trowel';

const { project, width, height } = scanner(trowelViews);
const front = (across: number, up: number): Px => project([across, up]);
const above = (across: number, deep: number): Px => project([across, ABOVE + deep]);

const [FRONT, TOP] = ['trowel-front', 'trowel-top'] as const;
const [end, , up] = TANG[3];
const whole = end + TROWEL.handle;

const frame = (from: Px, to: Px): Px[] =>
  [from, [to[0], from[1]] as const, to, [from[0], to[1]] as const].map((corner) => project(corner));

function viewsOf(sheet: ReturnType<typeof sheetOf>): View[] {
  const shown = (id: string, name: string, side: View['side'], around: Px[], origin: Px): View => ({
    ...createView(id, sheet),
    name,
    side,
    frame: around,
    datum: { origin, direction: (-trowelViews.askew * Math.PI) / 180 },
    joins: true,
    ...(id === FRONT ? {} : { shares: FRONT }),
  });
  return [
    withEvidence(shown(FRONT, 'Front', 'front', frame([-40, -58], [whole + 20, 95]), front(0, 0)), [
      length('long', front(0, 0), front(whole, 0), whole, { name: 'printed length' }),
    ]),
    shown(TOP, 'Top', 'top', frame([-40, ABOVE - 60], [whole + 20, ABOVE + 60]), above(0, 0)),
  ];
}

const PLACES = 7;

/** The tang's middle line, as it is traced in a view through places on it. */
function traced(id: string, plane: string, project: (t: number) => Px): Chain {
  const nodes = Array.from({ length: PLACES }, (_, i) => ({
    id: `${id}-${i}`,
    place: pointed(project(i / (PLACES - 1))),
    smooth: true,
  }));
  return {
    shape: 'chain',
    id,
    plane,
    layer: 'outline',
    closed: false,
    nodes,
    segments: nodes.slice(1).map(() => ({ kind: 'curve' as const })),
  };
}

/** The hand trowel's drawing: two views that stand together, and the middle line of its tang traced in both. */
export function trowelJob(made: Date): Job {
  const sheet = sheetOf('trowel', 'Hand trowel', 'scan', { width, height });
  return {
    ...createJob('trowel', 'Hand trowel', made),
    sheets: [sheet],
    views: viewsOf(sheet),
    projection: 'third',
    features: [
      line('base', 'Bench', 'up', [[FRONT, front(60, 0)]], true),
      line(
        'tip',
        'Tip',
        'across',
        [
          [FRONT, front(0, 15)],
          [TOP, above(0, 0)],
        ],
        true,
      ),
      line('heel', 'Handle begins', 'across', [
        [FRONT, front(end, up - 14)],
        [FRONT, front(end, up + 14)],
        [TOP, above(end, TANG[3][1] - 14)],
        [TOP, above(end, TANG[3][1] + 14)],
      ]),
      line(
        'middle',
        'Middle of the blade',
        'deep',
        [
          [TOP, above(0, 0)],
          [TOP, above(TROWEL.heel, 0)],
        ],
        true,
      ),
      line('axis', 'Middle of the handle', 'up', [
        [FRONT, front(end, up)],
        [FRONT, front(whole, up)],
      ]),
    ],
    outlines: [
      traced('tang-front', FRONT, (t) => front(onTang(t)[0], onTang(t)[2])),
      traced('tang-top', TOP, (t) => above(onTang(t)[0], onTang(t)[1])),
    ],
    spaceCurves: [{ id: 'tang', name: 'Tang', of: ['tang-front', 'tang-top'] }],
  };
}
