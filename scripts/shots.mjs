// Remakes docs/screenshots from the demo: one current picture of each main view.
import './build.mjs';
import { spawnSync } from 'node:child_process';

const { status } = spawnSync('npx', ['--no-install', 'playwright', 'test', '--config', 'e2e/shots.config.ts'], {
  stdio: 'inherit',
});
process.exit(status ?? 1);
