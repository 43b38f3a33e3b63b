import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { brotliCompressSync } from 'node:zlib';
import { createApp } from './app';

const dist = mkdtempSync(path.join(tmpdir(), 'bryony-dist-'));
mkdirSync(path.join(dist, '_expo/static/js'), { recursive: true });
mkdirSync(path.join(dist, 'vendor'));
writeFileSync(
  path.join(dist, 'index.html'),
  '<html><head><style id="reset">body{margin:0}</style></head><body>page</body></html>',
);
writeFileSync(path.join(dist, '_expo/static/js/entry-abc.js'), 'let page = 1;');
writeFileSync(path.join(dist, '_expo/static/js/entry-abc.js.br'), brotliCompressSync('let page = 1;'));
writeFileSync(path.join(dist, 'vendor/solid.wasm'), new Uint8Array([0, 97, 115, 109]));

let server: Server;
beforeAll((done) => void (server = createApp(dist).listen(0, done)));
afterAll((done) => void server.close(done));
const get = (place: string, init?: RequestInit) =>
  fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}${place}`, init);

it('answers every path of the app with its page, which is asked for anew each time', async () => {
  for (const place of ['/', '/job/abc']) {
    const answer = await get(place);
    expect(answer.headers.get('cache-control')).toBe('no-cache');
    expect(await answer.text()).toContain('page');
  }
});

it.each([
  ['/service/scanner/scans', '{"dpi":'],
  ['/service/scanner/hand', 'null x'],
  ['/service/scanner/scans', `"${'x'.repeat(20_000)}"`],
  ['/%E0%A4%A', undefined],
  ['/service/parcels/%E0%A4%A/picture', undefined],
])('answers nonsense for %s plainly, with nothing about this machine', async (place, body) => {
  const answer = await get(
    place,
    body === undefined ? {} : { method: 'POST', body, headers: { 'content-type': 'application/json' } },
  );
  const text = await answer.text();
  expect([400, 404, 413]).toContain(answer.status);
  expect(text).not.toMatch(/\n +at |node_modules|\/(home|work|tmp|usr)\//);
  expect(text.length).toBeLessThan(80);
});

it('keeps files named by their content for good, and sends them compressed', async () => {
  const answer = await get('/_expo/static/js/entry-abc.js', { headers: { 'accept-encoding': 'br' } });
  expect(answer.headers.get('cache-control')).toContain('immutable');
  expect(answer.headers.get('content-encoding')).toBe('br');
  expect(answer.headers.get('content-type')).toContain('javascript');
});

it('serves wasm as wasm, and misses what is missing instead of sending the page', async () => {
  expect((await get('/vendor/solid.wasm')).headers.get('content-type')).toBe('application/wasm');
  for (const place of ['/_expo/static/js/gone.js', '/fonts/gone.woff2', '/demo/gone', '/gone.json'])
    expect((await get(place)).status).toBe(404);
  expect((await get('/', { method: 'POST' })).status).toBe(405);
});

it('allows this origin only, and inline style by its hash only', async () => {
  const policy = (await get('/')).headers.get('content-security-policy')!;
  expect(policy).toContain("default-src 'self'");
  expect(policy).toContain("connect-src 'self'");
  expect(policy).not.toContain('unsafe-inline');
  expect(policy).not.toMatch(/unsafe-eval(?<!wasm-unsafe-eval)/);
  expect(policy).toMatch(/style-src 'self' 'sha256-[^ ]+' 'sha256-[^ ]+'/);
});
