import { done, refused, type Result } from '../basics';
import { findUnit } from './unit';

/** One written piece of a length. `spaced` says whether white space stood before it: "7-2" and "3 -5" read differently. */
export type Token =
  | {
      readonly kind: 'number';
      readonly value: number;
      readonly whole: boolean;
      readonly text: string;
      readonly spaced: boolean;
    }
  | { readonly kind: 'unit'; readonly mm: number; readonly text: string; readonly spaced: boolean }
  | { readonly kind: 'sign'; readonly text: '+' | '-' | '*' | '/' | '±' | '%' | '(' | ')'; readonly spaced: boolean };

const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
};

/** One spelling for what keyboards, phones and copied text write in many. */
function normalise(text: string): string {
  return text
    .replace(/[½¼¾⅛⅜⅝⅞⅓⅔]/g, (sign) => ` ${VULGAR[sign]}`)
    .replace(/\u2044/g, '/')
    .replace(/''|[″”“]/g, '"')
    .replace(/[′’‘]/g, "'")
    .replace(/\+\s*\/?\s*[-−–]/g, '±')
    .replace(/[−–—]/g, '-')
    .replace(/(?<=[\d\s"'a-z])[x×·](?=\s*\d)/gi, '*')
    .toLowerCase();
}

/** A number as written with comma or point. "1,250" can be read two ways and is refused rather than guessed. */
function readNumber(text: string): Result<number> {
  const commas = text.split(',').length - 1;
  const points = text.split('.').length - 1;
  if (commas === 1 && points === 0 && /^[1-9]\d{0,2},\d{3}$/.test(text)) return refused('number-ambiguous', { text });
  const grouped = /^\d{1,3}([.,]\d{3})+([.,]\d+)?$/;
  const last = Math.max(text.lastIndexOf(','), text.lastIndexOf('.'));
  if (commas + points > 1) {
    if (!grouped.test(text)) return refused('number-not-understood', { text });
    const sameSign = commas === 0 || points === 0;
    const whole = (sameSign ? text : text.slice(0, last)).replace(/[.,]/g, '');
    return done(Number(sameSign ? whole : `${whole}.${text.slice(last + 1)}`));
  }
  return done(Number(text.replace(',', '.')));
}

const PATTERN = /\s*(?:(\d[\d.,]*\d|\d+|[.,]\d+)([.,](?!\d))?|([a-zµμ]+|"|')|([-+*/±%()]))/y;

/** Cuts a written length into numbers, units and signs; refuses what is none of them and says what it was. */
export function listTokens(text: string): Result<readonly Token[]> {
  const source = normalise(text.trim());
  const tokens: Token[] = [];
  PATTERN.lastIndex = 0;
  while (PATTERN.lastIndex < source.length) {
    const start = PATTERN.lastIndex;
    const match = PATTERN.exec(source);
    if (!match) return refused('not-understood', { text: source.slice(start).trim() });
    const spaced = /^\s/.test(match[0]);
    const [, number, , word, sign] = match;
    if (number !== undefined) {
      const value = readNumber(number);
      if (!value.ok) return value;
      tokens.push({ kind: 'number', value: value.value, whole: /^\d+$/.test(number), text: number, spaced });
    } else if (word !== undefined) {
      const mm = findUnit(word);
      if (mm === undefined) return refused('not-understood', { text: word });
      tokens.push({ kind: 'unit', mm, text: word, spaced });
    } else tokens.push({ kind: 'sign', text: sign as '+', spaced });
  }
  return done(tokens);
}
