/** Ways to spoil a file. All of it follows from a seed, so that what was found is found again. */

export type Random = () => number;

/** A generator of even numbers from 0 to 1 (mulberry32, public domain by T. Ettinger). */
export function randomFrom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;

/** What nobody expects in the place of a word or a number. */
const NASTY = [
  'NaN',
  'Infinity',
  '-Infinity',
  '1e308',
  '-1e308',
  '1e-308',
  '9'.repeat(309),
  '-1',
  '0',
  '-0',
  '1e9',
  '999999999',
  '2147483648',
  '0.1e',
  '--1',
  '',
  ' ',
  'null',
  'true',
  '{}',
  '[]',
  '[null]',
  '""',
  '"constructor"',
  '"__proto__"',
  '"toString"',
  'constructor',
  '__proto__',
  '../..',
  'a/b',
  'x?y#z',
  '\u0000',
  '\ufeff',
  '💥',
  'EOF',
  'SEQEND',
  'ENDSEC',
  'SECTION',
  'BLOCK',
  'ENDBLK',
  'INSERT',
  'POLYLINE',
  'SPLINE',
  '70',
  '71',
  '10',
  '<g>',
  '</g>',
  '<!ENTITY a "b">',
  '&a;',
  '(',
  ')',
  '('.repeat(300),
  '['.repeat(5000),
  '1/0',
  '1/3/5',
];

type Spoil = (random: Random, text: string) => string;

const words = /[-+.\w]+/g;

function spanOf(random: Random, text: string): readonly [number, number] {
  const found = [...text.matchAll(words)];
  if (found.length === 0) return [0, text.length];
  const word = pick(random, found);
  return [word.index, word.index + word[0].length];
}

const SPOILS: readonly Spoil[] = [
  (random, text) => {
    const [from, to] = spanOf(random, text);
    return text.slice(0, from) + pick(random, NASTY) + text.slice(to);
  },
  (random, text) => {
    const [from, to] = spanOf(random, text);
    const [otherFrom, otherTo] = spanOf(random, text);
    return text.slice(0, from) + text.slice(otherFrom, otherTo) + text.slice(to);
  },
  (random, text) => {
    const lines = text.split('\n');
    return lines.toSpliced(Math.floor(random() * lines.length), 1 + Math.floor(3 * random() ** 3)).join('\n');
  },
  (random, text) => {
    const lines = text.split('\n');
    const at = Math.floor(random() * lines.length);
    return lines.toSpliced(at, 0, ...lines.slice(at, at + 1 + Math.floor(20 * random()))).join('\n');
  },
  (random, text) => text.slice(0, Math.floor(random() * text.length)),
  (random, text) => {
    const at = Math.floor(random() * text.length);
    return (
      text.slice(0, at) +
      pick(random, ['{', '}', '[', ']', '"', ',', ':', '<', '>', '/', '\n', '0', ' ']) +
      text.slice(at + (random() < 0.5 ? 1 : 0))
    );
  },
  (random, text) => {
    const from = Math.floor(random() * text.length);
    const part = text.slice(from, from + Math.floor(200 * random()));
    return text.slice(0, from) + part.repeat(2 + Math.floor(40 * random() ** 4)) + text.slice(from);
  },
];

const NASTY_VALUES: readonly unknown[] = [
  null,
  true,
  '',
  'constructor',
  '__proto__',
  'a/b',
  '..',
  -1,
  0,
  1e308,
  -1e308,
  1e-308,
  1e9,
  2 ** 53,
  0.1,
  [],
  {},
  [null],
  [[]],
  'x'.repeat(5000),
  Array.from({ length: 3000 }, (_, i) => i),
];

/** One value of a document replaced, taken away, doubled or put in the place of another. */
function spoiltJson(random: Random, text: string): string {
  let root: unknown;
  try {
    root = JSON.parse(text);
  } catch {
    return text;
  }
  const places: { readonly holder: Record<string, unknown>; readonly key: string }[] = [];
  const walk = (holder: unknown): void => {
    if (typeof holder !== 'object' || holder === null) return;
    for (const key of Object.keys(holder)) {
      places.push({ holder: holder as Record<string, unknown>, key });
      walk((holder as Record<string, unknown>)[key]);
    }
  };
  walk(root);
  if (places.length === 0) return text;
  const { holder, key } = pick(random, places);
  const way = random();
  const value = holder[key];
  if (way < 0.3) holder[key] = pick(random, NASTY_VALUES);
  else if (way < 0.5 && typeof value === 'number') holder[key] = value * pick(random, [0, -1, 1e-9, 1e3, 1e12, 1e300]);
  else if (way < 0.6) Reflect.deleteProperty(holder, key);
  else if (way < 0.75 && Array.isArray(holder)) holder.push(structuredClone(value));
  else {
    const other = pick(random, places);
    holder[key] = structuredClone(other.holder[other.key]);
  }
  return JSON.stringify(root);
}

function spoiltBytes(random: Random, bytes: Uint8Array): Uint8Array {
  const at = Math.floor(random() * bytes.length);
  const way = random();
  if (way < 0.15) return bytes.slice(0, at);
  const spoilt = bytes.slice();
  if (way < 0.6) spoilt[at] = pick(random, [0, 255, 1, 127, 128, spoilt[at]! ^ (1 << Math.floor(8 * random()))]);
  else spoilt.fill(pick(random, [0, 255]), at, at + 1 + Math.floor(8 * random()));
  return spoilt;
}

/** What a file is made of. */
export type Stuff = 'bytes' | 'text' | 'json';

/** A file, spoilt in one place or several. */
export function spoilt(random: Random, bytes: Uint8Array, stuff: Stuff): Uint8Array {
  const [isText, isJson] = [stuff !== 'bytes', stuff === 'json'];
  let result = bytes;
  for (let times = 1 + Math.floor(4 * random() ** 2); times > 0; times--) {
    if (isJson && random() < 0.8)
      result = new TextEncoder().encode(spoiltJson(random, new TextDecoder().decode(result)));
    else
      result =
        isText && random() < 0.95
          ? new TextEncoder().encode(pick(random, SPOILS)(random, new TextDecoder().decode(result)))
          : spoiltBytes(random, result);
  }
  return result;
}
