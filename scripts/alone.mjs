// One process at a time: two set-ups in one checkout would take each other's files away. Uses only what Node brings.
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';

const LOOK_AGAIN_MS = 500;
/** A lock that says nobody for so many looks was left by one that died while it took it. */
const MOST_LOOKS = 10;

const lockOf = (what, folder) => path.join(folder, `${what}.lock`);

/** Takes the lock by making its file, which only one can; false where it is there already. */
function take(file) {
  try {
    writeFileSync(file, String(process.pid), { flag: 'wx' });
    return true;
  } catch (problem) {
    if (problem.code === 'EEXIST') return false;
    throw problem;
  }
}

/** Who holds it; undefined when it was let go, or is only just being taken. */
function findHolder(file) {
  try {
    return Number(readFileSync(file, 'utf8')) || undefined;
  } catch {
    return undefined;
  }
}

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (problem) {
    return problem.code === 'EPERM';
  }
}

/** Does some work when nobody else in this checkout is at work of that name. Waits for whoever is, and says so; one that was killed is not waited for. */
export async function alone(what, work, { folder = '.cache', say = console.log } = {}) {
  mkdirSync(folder, { recursive: true });
  const file = lockOf(what, folder);
  let said;
  let looks = 0;
  while (!take(file)) {
    const holder = findHolder(file);
    looks = holder === undefined ? looks + 1 : 0;
    if (holder === undefined ? looks > MOST_LOOKS : !isAlive(holder)) {
      // It is taken away only while it is still that one's.
      if (findHolder(file) === holder) rmSync(file, { force: true });
      continue;
    }
    if (holder !== said && holder !== undefined)
      say(`Another ${what} is at work in this checkout (process ${holder}). Waiting until it is through …`);
    said = holder ?? said;
    await sleep(LOOK_AGAIN_MS);
  }
  const letGo = () => rmSync(file, { force: true });
  process.once('exit', letGo);
  try {
    return await work();
  } finally {
    process.removeListener('exit', letGo);
    letGo();
  }
}
