/** What one works on is in the part of the bench that cards, guides and the keyboard leave free, and no larger a move than that is made for it. */
import type { Locator } from '@playwright/test';
import { axe } from './helpers/axe';
import { expect, test, truth, type Desk } from './helpers/desk';
import type { Px, TouchHand } from './helpers/hand';

const { card, rule } = truth;

async function boxOf(
  locator: Locator,
): Promise<{ readonly x: number; readonly y: number; readonly right: number; readonly bottom: number }> {
  const { x, y, width, height } = (await locator.boundingBox())!;
  return { x, y, right: x + width, bottom: y + height };
}

/** The part of the screen that shows the bench and nothing over it. */
async function freePartOf({ page, hand }: Desk) {
  await hand.shown();
  const bench = await boxOf(page.getByTestId('bench'));
  const [tour, cards] = [page.getByTestId('tour'), page.getByTestId('ledge-cards')];
  const isOver = async (over: Locator) => (await over.count()) > 0;
  const covered = (await isOver(cards)) ? await boxOf(cards) : undefined;
  // Held sideways a phone has its cards at the bench's right edge.
  const isAside = covered !== undefined && covered.x > bench.x + 100 && covered.y < bench.bottom - 1;
  return {
    ...bench,
    y: (await isOver(tour)) ? (await boxOf(tour)).bottom : bench.y,
    bottom: covered && !isAside ? Math.min(bench.bottom, covered.y) : bench.bottom,
    right: isAside ? covered.x : bench.right,
  };
}

async function expectInFreePart(desk: Desk, ...places: readonly Px[]): Promise<void> {
  const free = await freePartOf(desk);
  for (const place of places) {
    const [x, y] = await desk.hand.screenOf(place);
    expect(x).toBeGreaterThan(free.x);
    expect(x).toBeLessThan(free.right);
    expect(y).toBeGreaterThan(free.y);
    expect(y).toBeLessThan(free.bottom);
  }
}

test('from step to step the whole picture is seen, large, and the buttons stand above the cards @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-start');
  for (const step of ['sources', 'trace', 'handover', 'fit', 'sources', 'trace'] as const) {
    await desk.step(step);
    await expectInFreePart(desk, [5, 5], [4027, 5], [5, 3019], [4027, 3019]);
    const [left, right] = [await desk.hand.screenOf([0, 0]), await desk.hand.screenOf([4032, 0])];
    expect(right[0] - left[0]).toBeGreaterThan(360);
    const [buttons, free] = [await boxOf(page.getByTestId('zoom-all')), await freePartOf(desk)];
    expect(buttons.bottom).toBeLessThan(free.bottom);
  }
});

test('held sideways a phone shows the picture over two thirds of its height, and a length is pointed at, typed and checked @phone', async ({
  desk,
  page,
}) => {
  await page.setViewportSize({ width: 844, height: 390 });
  await desk.openDemo('blade-start');
  await page.getByTestId('tour').getByRole('button').click();
  for (const step of ['sources', 'trace', 'fit'] as const) {
    await desk.step(step);
    await expectInFreePart(desk, [5, 5], [4027, 5], [5, 3019], [4027, 3019]);
    const [top, bottom] = [await desk.hand.screenOf([0, 0]), await desk.hand.screenOf([0, 3024])];
    expect(bottom[1] - top[1]).toBeGreaterThan(220);
  }
  await axe(page);
  await desk.pointAt(card.left, card.right);
  await desk.type('length-field', '85.6');
  await expect(page.getByTestId('view-fit')).toContainText('±');
  await desk.choose('tool-check');
  await desk.pointAt(rule.marks[0]!.px, rule.marks.at(-1)!.px);
  await desk.type('length-field', String(rule.marks.at(-1)!.mark - rule.marks[0]!.mark));
  await desk.openCards();
  await expect(page.getByText(/agrees/).first()).toBeVisible();
});

test('what was pointed at low on the picture is seen while its size is asked for, and all is where it was afterwards @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-start');
  await page.getByTestId('tour').getByRole('button').click();
  const [x, y] = rule.marks[0]!.px;
  const ends: readonly [Px, Px] = [
    [x, y],
    [x + 300, y],
  ];
  // Low on the bench, under where the cards will lie.
  await desk.hand.zoomTo(ends[0], 0.5);
  const hand = desk.hand as TouchHand;
  const [now, bench] = [await hand.screenOf(ends[0]), await boxOf(page.getByTestId('bench'))];
  await hand.move(now, [bench.x + 112, bench.bottom - 205]);
  const rest = await hand.shown();
  for (const end of ends) await hand.pointAt(end, 0.4);
  await expect(page.getByTestId('ledge-cards')).toBeVisible();
  await expectInFreePart(desk, ...ends);
  expect((await hand.shown()).zoom).toBe(rest.zoom);
  await page.getByTestId('length-field').fill('40');
  await page.getByTestId('length-field').press('Enter');
  await expect(page.getByTestId('ledge-cards')).toHaveCount(0);
  const after = await hand.shown();
  expect([after.zoom, after.left, after.top].map((value) => Math.round(value * 1e6))).toEqual(
    [rest.zoom, rest.left, rest.top].map((value) => Math.round(value * 1e6)),
  );
});

test('a keyboard leaves the field, what it is about and the bench in sight @phone', async ({ desk, page }) => {
  await desk.openDemo('blade-start');
  await page.getByTestId('tour').getByRole('button').click();
  for (const end of [card.left, card.right]) await desk.hand.pointAt(end, 0.3);
  await page.getByTestId('length-field').focus();
  await page.setViewportSize({ width: 390, height: 844 - 336 });
  await expect(page.getByTestId('step-trace')).toHaveCount(0);
  await expectInFreePart(desk, card.left, card.right);
  const [field, free] = [await boxOf(page.getByTestId('length-field')), await freePartOf(desk)];
  expect(field.bottom).toBeLessThanOrEqual(844 - 336);
  expect(free.bottom - free.y).toBeGreaterThan(150);
  await page.getByTestId('length-field').fill('85.6');
  await page.getByTestId('length-field').press('Enter');
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(page.getByTestId('step-trace')).toBeVisible();
});

test('what is said lies over the views and leaves the picture alone, and a guide says what the step in hand needs @phone', async ({
  desk,
  page,
}) => {
  await desk.openDemo('blade-start');
  await expect(page.getByTestId('tour')).toContainText('1 of 4. Fit');
  await desk.step('trace');
  await expect(page.getByTestId('tour')).toContainText('3 of 4. Trace');
  await desk.choose('tool-circle');
  await desk.pointAt(truth.blade.holes[0]!.px);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('notice')).toBeVisible();
  const [notice, bench] = [await boxOf(page.getByTestId('notice')), await boxOf(page.getByTestId('bench'))];
  expect(notice.bottom).toBeLessThanOrEqual(bench.y);
  // Open cards leave the guide no room: it comes back with the bench.
  await desk.openCards();
  await expect(page.getByTestId('tour')).toHaveCount(0);
  await desk.closeCards();
  await expect(page.getByTestId('tour')).toBeVisible();
});

test('where the picture goes of itself it is seen going, but by those who ask for less motion @wide', async ({
  desk,
  page,
}) => {
  await page.addInitScript(() => {
    const { animate } = Element.prototype;
    document.addEventListener('DOMContentLoaded', () => (document.body.dataset.slides = '0'));
    Element.prototype.animate = function (...given) {
      if (this.parentElement?.dataset.testid === 'bench')
        document.body.dataset.slides = String(Number(document.body.dataset.slides) + 1);
      return animate.apply(this, given);
    };
  });
  const slides = async () => Number(await page.evaluate(() => document.body.dataset.slides));
  await desk.openDemo('blade-start');
  await page.getByTestId('tour').getByRole('button').click();
  await desk.hand.shown();
  const before = await slides();
  await page.getByTestId('zoom-in').click();
  await desk.hand.shown();
  expect(await slides()).toBe(before);
  await page.getByTestId('zoom-all').click();
  await expect.poll(slides).toBe(before + 1);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.getByTestId('zoom-in').click();
  await page.getByTestId('zoom-all').click();
  await expectInFreePart(desk, [5, 5], [4027, 3019]);
  expect(await slides()).toBe(before + 1);
});
