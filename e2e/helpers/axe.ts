import { source, type AxeResults, type RunOptions } from 'axe-core';
import { expect, type Page } from '@playwright/test';

declare global {
  interface Window {
    axe?: { run(context: Document, options: RunOptions): Promise<AxeResults> };
  }
}

/** Nothing that axe calls serious or critical on what is shown now. It is brought into a page once, and asked for what is wrong alone: everything else it found took most of the time. */
export async function axe(page: Page): Promise<void> {
  if (!(await page.evaluate(() => window.axe !== undefined))) await page.evaluate(source);
  const { violations, seen } = await page.evaluate(async () => {
    const results = await window.axe!.run(document, { resultTypes: ['violations'] });
    const plain = results.violations.map(({ id, impact, nodes }) => ({
      id,
      impact,
      where: nodes.map(({ html }) => html.slice(0, 160)),
    }));
    return { violations: plain, seen: results.passes.length };
  });
  // A page that is not there has nothing wrong with it.
  expect(seen).toBeGreaterThan(5);
  expect(
    violations
      .filter(({ impact }) => impact === 'serious' || impact === 'critical')
      .map(({ id, where }) => `${id}: ${where.join(' | ')}`),
  ).toEqual([]);
}
