/** Several processes in one checkout, one of them killed: each does its work while none of the others is at it. */
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const folder = mkdtempSync(path.join(tmpdir(), 'alone-'));
const log = path.join(folder, 'log');
const alone = JSON.stringify(path.resolve('scripts/alone.mjs'));
const place = JSON.stringify(folder);

/** A process that writes down when it begins and ends its work; `does` is what it does between. */
function start(name: string, does: string) {
  const script = `
    const { alone } = await import(${alone});
    const { appendFileSync } = await import('node:fs');
    await alone('work', async () => {
      appendFileSync(${JSON.stringify(log)}, '${name} begins\\n');
      ${does}
      appendFileSync(${JSON.stringify(log)}, '${name} ends\\n');
    }, { folder: ${place} });`;
  const child = spawn(process.execPath, ['--input-type=module', '-e', script], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const said: string[] = [];
  child.stdout.on('data', (part) => said.push(String(part)));
  return {
    child,
    ended: new Promise<{ status: number | null; said: string }>((resolve) =>
      child.on('close', (status) => resolve({ status, said: said.join('') })),
    ),
  };
}

/** Works until it is told that it may end. */
const go = path.join(folder, 'go');
const WORKS = `
  const { existsSync } = await import('node:fs');
  while (!existsSync(${JSON.stringify(go)})) await new Promise((resolve) => setTimeout(resolve, 50));`;
const began = async (name: string) => {
  while (!existsSync(log) || !readFileSync(log, 'utf8').includes(`${name} begins`))
    await new Promise((resolve) => setTimeout(resolve, 50));
};

it('one after the other, though all are started at once, and those who wait say for whom', async () => {
  const first = start('first', WORKS);
  await began('first');
  const others = ['second', 'third', 'fourth'].map((name) => start(name, WORKS));
  await Promise.all(others.map(({ child }) => new Promise((resolve) => child.stdout!.once('data', resolve))));
  writeFileSync(go, '');
  const all = await Promise.all([first, ...others].map(({ ended }) => ended));
  expect(all.map(({ status }) => status)).toEqual([0, 0, 0, 0]);
  const lines = readFileSync(log, 'utf8').trim().split('\n');
  expect(lines).toHaveLength(8);
  for (let i = 0; i < lines.length; i += 2) expect(lines[i]!.replace('begins', 'ends')).toBe(lines[i + 1]);
  for (const { said } of all.slice(1)) expect(said).toMatch(/Another work is at work in this checkout \(process \d+\)/);
});

it('who was killed at work, or whose work failed, is not waited for', async () => {
  const killed = start('killed', 'await new Promise(() => setInterval(() => undefined, 1000));');
  await began('killed');
  killed.child.kill('SIGKILL');
  await killed.ended;
  expect(existsSync(path.join(folder, 'work.lock'))).toBe(true);
  const failed = await start('failed', "throw new Error('on purpose');").ended;
  expect(failed.status).not.toBe(0);
  expect((await start('after', '').ended).status).toBe(0);
  expect(existsSync(path.join(folder, 'work.lock'))).toBe(false);
  // What was only just taken says nobody yet: it is waited for, and not taken away.
  writeFileSync(path.join(folder, 'work.lock'), '');
  const waiting = start('waiting', '');
  await new Promise((resolve) => setTimeout(resolve, 900));
  expect(readFileSync(log, 'utf8')).not.toContain('waiting begins');
  waiting.child.kill();
  await waiting.ended;
});
