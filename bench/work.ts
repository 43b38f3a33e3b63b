import type { Page } from 'playwright-core';

/** What a frame costs, milliseconds: of script, and of the main thread as a whole. */
export interface Work {
  readonly script: number;
  readonly task: number;
}

/** Script and whole main-thread time of each of so many moves. */
export async function workOf(page: Page, moves: number, move: (i: number) => Promise<void>): Promise<Work> {
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const read = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    const of = (name: string) => metrics.find((metric) => metric.name === name)!.value * 1000;
    return { script: of('ScriptDuration'), task: of('TaskDuration') };
  };
  const before = await read();
  for (let i = 0; i < moves; i++) await move(i);
  const after = await read();
  return { script: (after.script - before.script) / moves, task: (after.task - before.task) / moves };
}
