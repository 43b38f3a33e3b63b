import { defineConfig } from '@playwright/test';
import base from '../playwright.config';

/** Not tests: the pictures of docs/screenshots, taken in the same browser from the same served app. */
export default defineConfig({ ...base, testDir: '.', testMatch: 'shots.ts', reporter: 'list', workers: 1, outputDir: '../test-results/shots', webServer: { ...(base.webServer as object), cwd: '..' } as never });
