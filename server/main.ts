import { existsSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import { networkInterfaces } from 'node:os';
import path from 'node:path';
import { generate } from 'selfsigned';
import { createApp } from './app';

const DEFAULT_PORT = 8710;

function optionAfter(name: string): string | undefined {
  const at = process.argv.indexOf(name);
  return at >= 0 ? process.argv[at + 1] : undefined;
}

const port = Number(optionAfter('--port') ?? DEFAULT_PORT);
const dist = path.resolve(optionAfter('--dist') ?? 'dist');
const secure = process.argv.includes('--https');
if (!existsSync(path.join(dist, 'index.html'))) {
  console.error('The app is not built. Run: npm run demo');
  process.exit(1);
}

/** A certificate for this machine's own names, made anew at every start and never stored. */
async function certificate() {
  const made = await generate([{ name: 'commonName', value: 'bryony.local' }], { keySize: 2048 });
  return { key: made.private, cert: made.cert };
}

function listAddresses(): string[] {
  return Object.values(networkInterfaces())
    .flat()
    .filter((one) => one && one.family === 'IPv4' && !one.internal)
    .map((one) => one!.address);
}

async function main(): Promise<void> {
  const app = createApp(dist);
  const server = secure ? https.createServer(await certificate(), app) : http.createServer(app);
  server.on('error', (problem: NodeJS.ErrnoException) => {
    console.error(
      problem.code === 'EADDRINUSE'
        ? `Port ${port} is taken. Try: npm run demo -- --port ${port + 1}`
        : problem.message,
    );
    process.exit(1);
  });
  server.listen(port, () => {
    const scheme = secure ? 'https' : 'http';
    console.log(`Bryony is at ${scheme}://localhost:${port}`);
    for (const address of listAddresses()) console.log(`  on the local network: ${scheme}://${address}:${port}`);
  });
}

void main();
