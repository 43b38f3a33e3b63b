import { pictureWorker } from '@/workers';
import { keys, type KeyValueStorage } from './storage';

interface PictureHead {
  readonly pieces: number;
  readonly bytes: number;
}

/** Pieces written at a time: about 8 MB of text, so that a large picture never stands in memory twice. */
const PIECES_AT_ONCE = 4;

/** Pictures by the SHA-256 of their bytes. The head is written last: a picture without head is not there. */
export class PictureStore {
  constructor(private readonly storage: KeyValueStorage) {}

  async has(hash: string): Promise<boolean> {
    return (await this.storage.getItem(keys.picture(hash))) !== null;
  }

  /** Stores a picture once; a second time does nothing. Throws what the storage throws when it is full. */
  async put(hash: string, bytes: ArrayBuffer): Promise<void> {
    if (await this.has(hash)) return;
    const packed = await pictureWorker.call('toPieces', { bytes });
    if (packed.kind !== 'done') throw new Error('picture-not-packed');
    const pieces = packed.value;
    for (let at = 0; at < pieces.length; at += PIECES_AT_ONCE) {
      const some = pieces.slice(at, at + PIECES_AT_ONCE);
      await this.storage.setMany(Object.fromEntries(some.map((piece, i) => [keys.piece(hash, at + i), piece])));
    }
    const head: PictureHead = { pieces: pieces.length, bytes: bytes.byteLength };
    await this.storage.setItem(keys.picture(hash), JSON.stringify(head));
  }

  async get(hash: string): Promise<ArrayBuffer | undefined> {
    const head = await this.storage.getItem(keys.picture(hash));
    if (head === null) return undefined;
    const { pieces } = JSON.parse(head) as PictureHead;
    const names = Array.from({ length: pieces }, (_, i) => keys.piece(hash, i));
    const found = await this.storage.getMany(names);
    const texts = names.map((name) => found[name]);
    if (texts.some((text) => text === null || text === undefined)) return undefined;
    const unpacked = await pictureWorker.call('fromPieces', { pieces: texts as string[] });
    return unpacked.kind === 'done' ? unpacked.value : undefined;
  }

  /** Removes every picture that is not in `used`, half-written ones included. */
  async sweep(used: ReadonlySet<string>): Promise<void> {
    const all = await this.storage.getAllKeys();
    const gone = all.filter((key) => key.startsWith('picture/') && !used.has(key.split('/')[1]!));
    if (gone.length > 0) await this.storage.removeMany(gone);
  }
}
