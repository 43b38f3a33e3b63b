import { defineConfig } from '@playwright/test';
import base from '../playwright.config';

/**
 * Not tests: the pictures of docs/screenshots, taken in the same browser from the same served app, at one device pixel a CSS
 * pixel: a capture that is scaled down afterwards loses what WebGL drew.
 */
export default defineConfig({
  ...base,
  testDir: '.',
  testMatch: 'shots.ts',
  reporter: 'list',
  workers: 1,
  // The third project is of what only fine screens show.
  projects: base
    .projects!.slice(0, 2)
    .map((project) => ({ ...project, use: { ...project.use, deviceScaleFactor: 1 } })),
  outputDir: '../test-results/shots',
  webServer: { ...(base.webServer as object), cwd: '..' } as never,
});
