// The benchmark as the app is built: bundled, since running it from its sources would slow every closure.
import { spawn } from 'node:child_process';
import { build } from 'esbuild';

const BUNDLE = 'node_modules/.cache/bryony/bench.cjs';

await build({
  entryPoints: ['bench/run.ts'],
  bundle: true,
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  packages: 'external',
  outfile: BUNDLE,
  logLevel: 'warning',
});
spawn(process.execPath, [BUNDLE], { stdio: 'inherit' }).on('close', (status) => process.exit(status ?? 1));
