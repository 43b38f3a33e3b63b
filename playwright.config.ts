import { defineConfig } from '@playwright/test';

const PORT = 8717;

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };
/** Where it matters how many pixels a point of the screen has. Without a graphics card every one of them costs time. */
const FINE = /(hands|free-part|whole-task)\.spec\.ts/;

/**
 * What the browser leaves out. The last list of these counts, so Playwright's own is in it, as far as this browser knows it. The first two are pages of its own for an
 * address bar that nobody sees: each window would start a process for either, and every test opens a window.
 */
const LEFT_OUT = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'AimEnabled',
  'AvoidCorsURLLoaderRestartOnRedirect',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsFirstBalancedModeAutoEnable',
  'HttpsUpgrades',
  'LensOverlay',
  'MediaRouter',
  'NetworkTimeServiceQuerying',
  'OptimizationHints',
  'PaintHolding',
  'PreconnectToSearch',
  'ThirdPartyStoragePartitioning',
];

/** The real app, built and served as `npm run demo` does it, in Debian's Chromium. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results/browser',
  fullyParallel: true,
  workers: 2,
  // The longest task takes a minute on a usual machine, and five on a slow one.
  timeout: 480_000,
  // What is expected may take a slow machine longer than a person would wait.
  expect: { timeout: 30_000 },
  reporter: [
    ['list'],
    ['json', { outputFile: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ?? 'test-results/browser.json' }],
  ],
  webServer: { command: `node --import tsx server/main.ts --port ${PORT}`, port: PORT, reuseExistingServer: false },
  use: {
    baseURL: `http://localhost:${PORT}`,
    acceptDownloads: true,
    // What does not come is not waited for as long as a whole task takes.
    actionTimeout: 120_000,
    // Every test begins with an empty browser: it would store the whole app anew. The test of being offline allows it.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--enable-unsafe-swiftshader',
        '--use-fake-device-for-media-stream',
        '--use-fake-ui-for-media-stream',
        `--disable-features=${LEFT_OUT.join()}`,
      ],
    },
  },
  projects: [
    { name: 'wide', grepInvert: /@phone/, use: { viewport: { width: 1280, height: 800 } } },
    // What only a keyboard or a mouse does is marked @wide, what only a phone does @phone; so is what does not depend on the size.
    { name: 'phone', grepInvert: /@wide/, testIgnore: FINE, use: PHONE },
    {
      name: 'phone, as fine as phones are',
      grepInvert: /@wide/,
      testMatch: FINE,
      use: { ...PHONE, deviceScaleFactor: 3 },
    },
  ],
});
