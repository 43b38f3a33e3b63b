// Builds when needed, then serves the app on one local address and prints it. --https for phones on the network; --port N.
import './build.mjs';
import { spawn } from 'node:child_process';

const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts', ...process.argv.slice(2)], {
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
