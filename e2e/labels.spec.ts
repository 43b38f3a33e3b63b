/** Figures on the drawing can be read at every zoom: none lies on another, and what has no room opens when one points at it. */
import { readFileSync } from 'node:fs';
import type { Dimension, Job } from '../src/core/job';
import type { RelationEnd } from '../src/core/relate';
import { bundleOf } from './helpers/bundle';
import { expect, test, type Desk } from './helpers/desk';
import { MouseHand, type TouchHand } from './helpers/hand';

/** The drawn blade with a size between every two of its corners and holes, up to 55. */
function crowdedBundle(): Buffer {
  const job = JSON.parse(readFileSync('public/demo/blade-drawn.json', 'utf8')) as Job;
  const photo = readFileSync('public/demo/blade.jpg');
  const [chain] = job.outlines;
  const nodes = chain?.shape === 'chain' ? chain.nodes : [];
  const ends: readonly RelationEnd[] = [
    ...nodes.map(({ id }) => ({ outline: chain!.id, node: id })),
    ...[0, 1, 2, 3].map((i) => ({ outline: `blade-hole-${i}`, node: 'centre' })),
  ];
  const dimensions = ends.flatMap((a, i) =>
    ends.slice(i + 1).map((b, k): Dimension => ({
      id: `size-${i}-${k}`,
      plane: 'blade-view',
      kind: (['distance', 'across', 'up'] as const)[(i + k) % 3]!,
      on: [a, b],
      aside: (((i * 7 + k * 5) % 9) - 4) * 8,
    })),
  );
  return bundleOf({ ...job, dimensions: dimensions.slice(0, 55) }, photo);
}

interface Slip {
  readonly isFolded: boolean;
  readonly x: number;
  readonly y: number;
  readonly right: number;
  readonly bottom: number;
}

/** All slips of paper and marks on the bench, where they are on the screen. */
const slipsOf = ({ page }: Desk): Promise<readonly Slip[]> =>
  page.locator('[data-testid=labels] > g').evaluateAll((groups) =>
    groups.map((group) => {
      const { x, y, right, bottom } = (
        group.querySelector('rect') ?? group.querySelector('circle')!
      ).getBoundingClientRect();
      return { isFolded: (group as SVGElement).dataset.testid === 'folded-label', x, y, right, bottom };
    }),
  );

const overlap = (a: Slip, b: Slip) =>
  a.x < b.right - 0.5 && b.x < a.right - 0.5 && a.y < b.bottom - 0.5 && b.y < a.bottom - 0.5;

test('fifty-five sizes on one small drawing', async ({ desk, page }) => {
  await desk.openBundle(crowdedBundle());
  await desk.step('trace');
  await desk.closeCards();
  const counts: number[] = [];
  for (let closer = 0; closer < 4; closer++) {
    await desk.hand.shown();
    const slips = await slipsOf(desk);
    expect(slips).toHaveLength(55);
    const read = slips.filter(({ isFolded }) => !isFolded);
    counts.push(read.length);
    for (const [i, label] of read.entries())
      expect(
        [...read.slice(i + 1), ...slips.filter(({ isFolded }) => isFolded)].filter((other) => overlap(label, other)),
      ).toEqual([]);
    await page.getByTestId('zoom-in').click();
  }
  // The closer one comes the more of them have room.
  expect(counts[0]!).toBeGreaterThan(3);
  expect(counts.at(-1)!).toBeGreaterThan(counts[0]!);

  await page.getByTestId('zoom-all').click();
  await desk.hand.shown();
  await expect(page.getByTestId('opened-labels')).toHaveText('');
  const folded = (await slipsOf(desk)).find(({ isFolded }) => isFolded)!;
  const [x, y] = [(folded.x + folded.right) / 2, (folded.y + folded.bottom) / 2];
  if (desk.hand instanceof MouseHand) await page.mouse.move(x, y);
  else await (desk.hand as TouchHand).holdAt([x, y]);
  await expect(page.getByTestId('opened-labels')).toContainText('mm');
  // It opens where it is seen: on the bench, and clear of the pointer.
  const opened = await page.getByTestId('opened-labels').locator('rect').first().boundingBox();
  const bench = await page.getByTestId('bench').boundingBox();
  expect(opened!.x).toBeGreaterThanOrEqual(bench!.x - 1);
  expect(opened!.x + opened!.width).toBeLessThanOrEqual(bench!.x + bench!.width + 1);
  expect(opened!.y + opened!.height).toBeLessThan(y);
});
