/** The picture is drawn when something of it changes, and only then: a hand that moves over it costs the device nothing of that. */
import { expect, test, truth } from './helpers/desk';

declare global {
  interface Window {
    timesDrawn: number;
  }
}

test('the aim moves over a picture that stays as it is drawn; coming closer draws it anew @wide', async ({
  desk,
  page,
}) => {
  await page.addInitScript(() => {
    window.timesDrawn = 0;
    const { clear } = WebGL2RenderingContext.prototype;
    WebGL2RenderingContext.prototype.clear = function (mask) {
      window.timesDrawn++;
      clear.call(this, mask);
    };
  });
  const drawn = () => page.evaluate(() => window.timesDrawn);
  /** How often it was drawn once nothing is drawn any more. */
  const atRest = async () => {
    for (let before = await drawn(); ;) {
      await page.waitForTimeout(500);
      const now = await drawn();
      if (now === before) return now;
      before = now;
    }
  };
  await desk.openDemo('blade-finished');
  await desk.step('trace');
  await desk.choose('tool-line');
  const [first, , third] = truth.blade.holes;
  await desk.hand.zoomTo(first!.px, 1.5);
  const before = await atRest();
  expect(before).toBeGreaterThan(0);
  const [x, y] = await desk.hand.screenOf(first!.px);
  for (let i = 0; i < 20; i++) await page.mouse.move(x + 3 * i, y + 2 * i);
  await expect(page.getByTestId('aim-cross')).toHaveCount(1);
  expect(await atRest()).toBe(before);
  await desk.hand.zoomTo(third!.px, 3);
  expect(await atRest()).toBeGreaterThan(before);
});
