import type { KeyValueStorage } from './storage';

/** Storage that ends with its window. */
export function memoryStorage(values = new Map<string, string>()): KeyValueStorage {
  const valueOf = (key: string) => values.get(key) ?? null;
  return {
    getItem: async (key) => valueOf(key),
    getMany: async (some) => Object.fromEntries(some.map((key) => [key, valueOf(key)])),
    getAllKeys: async () => [...values.keys()],
    commit: async ({ onlyIf = {}, set = {}, remove = [] }) => {
      if (Object.entries(onlyIf).some(([key, text]) => valueOf(key) !== text)) return false;
      remove.forEach((key) => values.delete(key));
      Object.entries(set).forEach(([key, text]) => values.set(key, text));
      return true;
    },
  };
}
