import { pictureWorker } from '@/workers';
import { newId } from './ids';
import { keys, parsed, type KeyValueStorage } from './storage';

interface PictureHead {
  readonly pieces: number;
  readonly bytes: number;
}

/** Which windows are bringing a picture in, and since when. `turn` grows with every change, so that no two states are alike. */
interface Coming {
  readonly turn: number;
  readonly windows: Readonly<Record<string, number>>;
}

/** Pieces written at a time: about 8 MB of text, so that a large picture never stands in memory twice. */
const PIECES_AT_ONCE = 4;

/** A window that began to bring a picture in this long ago has died over it. */
const LONGEST_COMING_MS = 60 * 60 * 1000;

/** Pictures by the SHA-256 of their bytes. The head is written last: a picture without head is not there. */
export class PictureStore {
  private readonly window = newId();
  /** What this window has begun to bring in and no job that is stored mentions yet, and how often at once. */
  private readonly mine = new Map<string, number>();

  constructor(private readonly storage: KeyValueStorage) {}

  async has(hash: string): Promise<boolean> {
    return (await this.storage.getItem(keys.picture(hash))) !== null;
  }

  /** Stores a picture once; a second time does nothing. It is on its way in, and not swept, until it is settled. Throws what the storage throws; then nothing of it is left. */
  async put(hash: string, bytes: ArrayBuffer): Promise<void> {
    this.mine.set(hash, (this.mine.get(hash) ?? 0) + 1);
    try {
      await this.changeComing(hash, (windows) => ({ ...windows, [this.window]: Date.now() }));
      if (!(await this.has(hash))) await this.write(hash, bytes);
    } catch (problem) {
      await this.takeBack(hash).catch(() => undefined);
      throw problem;
    }
  }

  /** Stores a picture that a job mentions anew, whatever is left of it. Throws what the storage throws. */
  async write(hash: string, bytes: ArrayBuffer): Promise<void> {
    const packed = await pictureWorker.call('toPieces', { bytes });
    if (packed.kind !== 'done') throw new Error('picture-not-packed');
    const pieces = packed.value;
    for (let at = 0; at < pieces.length; at += PIECES_AT_ONCE) {
      const some = pieces.slice(at, at + PIECES_AT_ONCE);
      await this.storage.commit({ set: Object.fromEntries(some.map((piece, i) => [keys.piece(hash, at + i), piece])) });
    }
    const head: PictureHead = { pieces: pieces.length, bytes: bytes.byteLength };
    await this.storage.commit({ set: { [keys.picture(hash)]: JSON.stringify(head) } });
  }

  /** Takes back what was written of a picture that did not get in, so that it does not fill a full device; unless another window is bringing it in too. */
  private async takeBack(hash: string): Promise<void> {
    if (!this.isLast(hash)) return;
    const seen = await this.storage.getItem(keys.coming(hash));
    const others = without(readComing(seen).windows, this.window);
    const mine = (await this.storage.getAllKeys()).filter((key) => key.startsWith(`${keys.picture(hash)}/`));
    if (Object.keys(others).length === 0)
      await this.storage.commit({ onlyIf: { [keys.coming(hash)]: seen, [keys.picture(hash)]: null }, remove: mine });
  }

  /** Says of pictures that this window brought in that they are no longer on their way: a job mentions them, or nothing came of it. */
  async settle(hashes: Iterable<string>): Promise<void> {
    for (const hash of new Set(hashes)) {
      if (this.mine.has(hash) && this.isLast(hash))
        await this.changeComing(hash, (windows) => (this.mine.has(hash) ? windows : without(windows, this.window)));
    }
  }

  /** The bytes; undefined where not all of them are stored. Throws what the storage throws, and when they could not be unpacked. */
  async get(hash: string): Promise<ArrayBuffer | undefined> {
    const head = readHead(await this.storage.getItem(keys.picture(hash)));
    if (!head) return undefined;
    const names = Array.from({ length: head.pieces }, (_, i) => keys.piece(hash, i));
    const found = await this.storage.getMany(names);
    const texts = names.map((name) => found[name]);
    if (texts.some((text) => text === null || text === undefined)) return undefined;
    const unpacked = await pictureWorker.call('fromPieces', { pieces: texts as string[] });
    if (unpacked.kind !== 'done') throw new Error('picture-not-unpacked');
    return unpacked.value;
  }

  /**
   * Removes every picture that nothing uses, half-written ones included, and spares what any window is bringing in. Each is removed only if nobody began to bring it in since it was looked at: what comes in stays in.
   * @param findUsed what jobs and their histories mention, asked after it is known what is on its way
   */
  async sweep(findUsed: () => Promise<ReadonlySet<string>>): Promise<void> {
    const stored = new Map<string, string[]>();
    for (const key of (await this.storage.getAllKeys()).filter((name) => name.startsWith('picture/'))) {
      const hash = key.split('/')[1]!;
      stored.set(hash, [...(stored.get(hash) ?? []), key]);
    }
    const comings = await this.storage.getMany([...stored.keys()].map(keys.coming));
    const used = await findUsed();
    for (const [hash, mine] of stored) {
      const seen = comings[keys.coming(hash)] ?? null;
      const isComing = Object.values(readComing(seen).windows).some((since) => Date.now() - since < LONGEST_COMING_MS);
      if (!used.has(hash) && !isComing)
        await this.storage.commit({ onlyIf: { [keys.coming(hash)]: seen }, remove: mine });
    }
  }

  /** One bringing-in less of a picture; whether it was the last in this window. */
  private isLast(hash: string): boolean {
    const left = (this.mine.get(hash) ?? 1) - 1;
    if (left > 0) this.mine.set(hash, left);
    else this.mine.delete(hash);
    return left === 0;
  }

  private async changeComing(hash: string, change: (windows: Coming['windows']) => Coming['windows']): Promise<void> {
    for (;;) {
      const seen = await this.storage.getItem(keys.coming(hash));
      const { turn, windows } = readComing(seen);
      const next: Coming = { turn: turn + 1, windows: change(windows) };
      if (
        await this.storage.commit({
          onlyIf: { [keys.coming(hash)]: seen },
          set: { [keys.coming(hash)]: JSON.stringify(next) },
        })
      )
        return;
    }
  }
}

const without = (windows: Coming['windows'], window: string): Coming['windows'] =>
  Object.fromEntries(Object.entries(windows).filter(([name]) => name !== window));

function readHead(text: string | null): PictureHead | undefined {
  const head = parsed(text) as Partial<PictureHead> | null | undefined;
  return head && Number.isInteger(head.pieces) && head.pieces! >= 0 && head.pieces! < 100_000
    ? (head as PictureHead)
    : undefined;
}

function readComing(text: string | null): Coming {
  const { turn, windows } = (parsed(text) ?? {}) as Partial<Coming>;
  return {
    turn: typeof turn === 'number' ? turn : 0,
    windows: typeof windows === 'object' && windows !== null ? windows : {},
  };
}
