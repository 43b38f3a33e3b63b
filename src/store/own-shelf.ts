import { readOwnThing, type OwnThing, type ShelfEntry } from '@/core/shelf';
import { keys, OWN_SHELF, parsed, type KeyValueStorage } from './storage';
import { storage } from './this-device';

/** Things of known size that somebody keeps on this device: one key each, so that two windows cannot overwrite one another. */
export class OwnShelf {
  constructor(private readonly store: KeyValueStorage = storage) {}

  /** By name. What cannot be read is left where it is and not shown. */
  async list(): Promise<readonly ShelfEntry[]> {
    const kept = (await this.store.getAllKeys()).filter((key) => key.startsWith(OWN_SHELF));
    const values = Object.values(await this.store.getMany(kept));
    const entries = values
      .map((value) => (value ? readOwnThing(parsed(value)) : undefined))
      .filter((entry) => entry !== undefined);
    return entries.sort((a, b) => a.name.localeCompare(b.name));
  }

  async keep(thing: OwnThing): Promise<void> {
    await this.store.commit({ set: { [keys.own(thing.id)]: JSON.stringify(thing) } });
  }

  async remove(id: string): Promise<void> {
    await this.store.commit({ remove: [keys.own(id)] });
  }
}

export const ownShelf = new OwnShelf();
