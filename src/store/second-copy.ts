import { MARK } from './mark';
import { isStorageFull, type Commit, type KeyValueStorage } from './storage';

/** Texts by key in a place of the device that the browser keeps apart from its database. */
export interface Aside {
  list(): Promise<string[]>;
  read(key: string): Promise<string | null>;
  write(key: string, text: string): Promise<void>;
  remove(key: string): Promise<void>;
  clear(): Promise<void>;
}

/** Does something while no other window does something of the kind. */
export type Alone = <T>(does: () => Promise<T>) => Promise<T>;

/** About 6 MB at a time are put back. */
const PUT_BACK_AT_ONCE = 4;
/** What windows say to each other holds only while they are open; the mark is copied when all else is. */
const isFollowed = (key: string) => key !== MARK && !/\/(lease|coming)$/.test(key);

/**
 * A device of whose texts a second copy follows aside, for browsers that throw their database away. What is written counts as written as soon as it is on the device; the copy is a moment behind it. Each key is copied as it stands when its
 * turn comes, so it does not matter who wrote it, in what order, or how often. Half a copy would mislead: one that cannot be written is taken away, and so is one whose room the device itself needs.
 */
export class DoubledStorage implements KeyValueStorage {
  private readonly behind = new Set<string>();
  private working: Promise<void> | undefined;
  private isGivenUp = false;

  constructor(
    private readonly device: KeyValueStorage,
    private readonly aside: Aside,
    private readonly alone: Alone,
  ) {}

  getItem = (key: string) => this.device.getItem(key);
  getMany = (some: string[]) => this.device.getMany(some);
  getAllKeys = () => this.device.getAllKeys();

  async commit(commit: Commit): Promise<boolean> {
    const isDone = await this.device.commit(commit).catch(async (problem: unknown) => {
      if (this.isGivenUp || !isStorageFull(problem)) throw problem;
      await this.giveUp();
      return this.device.commit(commit);
    });
    if (isDone) this.follow([...Object.keys(commit.set ?? {}), ...(commit.remove ?? [])].filter(isFollowed));
    return isDone;
  }

  /** When all that was written so far is copied, or the copy was given up. */
  async settled(): Promise<void> {
    while (this.working) await this.working;
  }

  /** Copies what the copy lacks or has otherwise: all of it the first time, later what a window that was closed left behind. The mark comes last, so that only a whole copy is ever put back. Where there is no room for a first one, there is none. */
  async catchUp(hasRoom: () => Promise<boolean>): Promise<void> {
    if ((await this.aside.read(MARK)) === null && !(await hasRoom())) return this.giveUp();
    const [here, there] = await Promise.all([this.device.getAllKeys(), this.aside.list()]);
    const [known, copied] = [new Set(here), new Set(there)];
    // What is in a picture never changes: only whether it is there has to be looked at.
    this.follow(here.filter((key) => isFollowed(key) && !(copied.has(key) && key.startsWith('picture/'))));
    this.follow(there.filter((key) => !known.has(key)));
    this.follow([MARK]);
    await this.settled();
  }

  private follow(changed: readonly string[]): void {
    if (this.isGivenUp) return;
    changed.forEach((key) => this.behind.add(key));
    if (this.behind.size > 0) this.working ??= this.work().finally(() => (this.working = undefined));
  }

  private async work(): Promise<void> {
    try {
      await this.alone(async () => {
        for (const key of this.behind) {
          this.behind.delete(key);
          await this.copy(key);
        }
      });
    } catch {
      await this.giveUp();
    }
  }

  private async copy(key: string): Promise<void> {
    const text = await this.device.getItem(key);
    if (text === (await this.aside.read(key))) return;
    await (text === null ? this.aside.remove(key) : this.aside.write(key, text));
  }

  private async giveUp(): Promise<void> {
    this.isGivenUp = true;
    this.behind.clear();
    await this.aside.clear().catch(() => undefined);
  }
}

/** Whether the device is another than the one that was copied: the browser threw that away. */
export async function isCopyAhead(device: KeyValueStorage, aside: Aside): Promise<boolean> {
  const copied = await aside.read(MARK);
  return copied !== null && (await device.getItem(MARK)) !== copied;
}

/** Puts a whole copy back into the device; what was stored there since and is not in it stays. Throws what either throws: then it can be done once more. */
export async function putBack(device: KeyValueStorage, aside: Aside): Promise<void> {
  const there = (await aside.list()).filter((key) => key !== MARK);
  // Pictures first: a job that mentions a picture comes after it.
  there.sort((a, b) => Number(b.startsWith('picture/')) - Number(a.startsWith('picture/')));
  for (let at = 0; at < there.length; at += PUT_BACK_AT_ONCE)
    await device.commit({ set: await readAll(aside, there.slice(at, at + PUT_BACK_AT_ONCE)) });
  await device.commit({ set: await readAll(aside, [MARK]) });
}

async function readAll(aside: Aside, some: readonly string[]): Promise<Record<string, string>> {
  const texts = await Promise.all(some.map(async (key) => [key, await aside.read(key)] as const));
  return Object.fromEntries(texts.filter((pair): pair is readonly [string, string] => pair[1] !== null));
}
