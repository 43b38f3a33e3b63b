/** Guides and points of one view, sent to the others. */
import { setSide, shareLines, type Command } from '../job';
import { changed } from '../job/for-tests';
import { drawnAt } from '../arrange/simulated';
import type { Chain, Guide } from '../outline';
import { ALL, benchOf, FRONT, joining, NOISELESS, RIGHT, THING, TOP } from './bench-for-tests';
import { createDeriver, hasOthers, sentGuide, sentNode, type Sent } from '.';

const job = benchOf(NOISELESS, joining(...ALL));
const derived = createDeriver()(job);
const fittedIn = (view: string) => derived.views.get(view)!;

const guideIn = (view: typeof FRONT, name: string, more: Partial<Guide> = {}): Guide => ({
  id: 'g',
  plane: view.id,
  through: { kind: 'pointed', at: drawnAt(view, THING[name]!), sigma: 0.7 },
  angle: 0,
  offset: 0,
  ...more,
});
/** As it is shared. */
const sharing = ({ along, seen }: Sent): Command =>
  shareLines([
    {
      id: 'sent',
      name: 'Sent',
      ...(along ? { along } : {}),
      seen: seen.map((place, i) => ({ ...place, id: `s${i}` })),
    },
  ]);
const UPRIGHT = { angle: Math.PI / 2 };

it('a guide means the coordinate that its line shows, and is seen where it was pointed at', () => {
  const seat = sentGuide(guideIn(FRONT, 'seat'), fittedIn('front'), [])!;
  expect(seat).toEqual({ along: 'up', seen: [{ view: 'front', at: drawnAt(FRONT, THING.seat!), sigma: 0.7 }] });
  const sides = [FRONT, RIGHT, TOP].map((view) =>
    [guideIn(view, 'seat'), guideIn(view, 'seat', UPRIGHT)].map(
      (guide) => sentGuide(guide, fittedIn(view.id), [])!.along,
    ),
  );
  expect(sides).toEqual([
    ['up', 'across'],
    ['up', 'deep'],
    ['deep', 'across'],
  ]);
});

it('sent, it lies in all views where it lies in its own: as high as the seat', () => {
  const sent = sentGuide(guideIn(FRONT, 'seat'), fittedIn('front'), [])!;
  const { arranged } = createDeriver()(changed(job, sharing(sent)));
  expect(arranged.coordinate('sent', 'up')!.value).toBeCloseTo(THING.seat![2], 1);
});

it('one that stands aside of what was pointed at lies there, and not on that', () => {
  const aside = sentGuide(guideIn(FRONT, 'seat', { offset: 50 }), fittedIn('front'), [])!;
  expect(aside.seen).toHaveLength(1);
  const { arranged } = createDeriver()(changed(job, sharing(aside)));
  expect(arranged.coordinate('sent', 'up')!.value).toBeCloseTo(THING.seat![2] + 50, 0);
});

it('one that runs aslant, or in a view of no side, means no coordinate', () => {
  expect(sentGuide(guideIn(FRONT, 'seat', { angle: 0.3 }), fittedIn('front'), [])).toBeUndefined();
  const face = createDeriver()(changed(job, setSide('front', 'face')));
  expect(sentGuide(guideIn(FRONT, 'seat'), face.views.get('front')!, [])).toBeUndefined();
});

it('a point is sent as a place, in full; what was typed and not pointed at is not', () => {
  const chain: Chain = {
    shape: 'chain',
    id: 'c',
    plane: 'side',
    layer: 'outline',
    closed: false,
    nodes: [
      { id: 'a', place: { kind: 'pointed', at: drawnAt(RIGHT, THING.back!), sigma: 0.5 }, smooth: false },
      { id: 'b', place: { kind: 'placed', at: [10, 10], seen: [0, 0] }, smooth: false },
    ],
    segments: [{ kind: 'line' }],
  };
  expect(sentNode(chain, 'a', fittedIn('side'), [])).toEqual({
    seen: [{ view: 'side', at: drawnAt(RIGHT, THING.back!), sigma: 0.5 }],
  });
  expect(sentNode(chain, 'b', fittedIn('side'), [])).toBeUndefined();
  expect(sentNode(chain, 'gone', fittedIn('side'), [])).toBeUndefined();
});

it('there has to be another view that shows a side', () => {
  expect(hasOthers(job, fittedIn('front'))).toBe(true);
  const alone = changed(job, ...['side', 'plan'].map((id) => setSide(id, undefined)));
  expect(hasOthers(alone, fittedIn('front'))).toBe(false);
});
