import { CoreError, done, isWithinReach, refused, type Refusal, type Result } from '../basics';
import { listTokens, type Token } from './tokens';
import { MM_PER_FOOT, MM_PER_INCH, mmPerBareNumber, type UnitStyle } from './unit';

/** A length as somebody wrote it. mm. `plusMinus` is two sigma, as written; undefined when none was written. */
export interface WrittenLength {
  readonly mm: number;
  readonly plusMinus: number | undefined;
  readonly guess: boolean;
}

/** A sum whose bare numbers still wait for a unit: value = mm + bare × (millimetres in a bare number). */
interface Sum {
  mm: number;
  bare: number;
  readonly units: Set<number>;
  /** A bare proper fraction such as 5/16: nobody writes millimetres so, therefore inches. */
  fraction: boolean;
}

const GUESS = /^\s*(about|approx\.?|approximately|ca\.?|circa|roughly|~)\s*/i;
const INCH_DENOMINATORS = new Set([2, 4, 8, 16, 32, 64, 128]);

class Reader {
  private at = 0;
  constructor(private readonly tokens: readonly Token[]) {}

  peek(ahead = 0): Token | undefined {
    return this.tokens[this.at + ahead];
  }

  isSign(text: string, ahead = 0): boolean {
    const token = this.peek(ahead);
    return token?.kind === 'sign' && token.text === text;
  }

  take(): Token {
    const token = this.tokens[this.at++];
    if (!token) throw new CoreError('written-length-ends-early');
    return token;
  }

  takeSign(text: string): boolean {
    if (!this.isSign(text)) return false;
    this.at++;
    return true;
  }
}

/**
 * Reads a length as people write it: `412`, `41.2 cm`, `5/16`, `1' 4 1/2"`, `7 + 3 5/8 in`, `2 x 19.05`, `46 ± 0.2`,
 * `about 3 ft`. mm. A number without unit takes the unit written beside it, else inches for a bare fraction, else `style`.
 * Refuses with a code and what was not understood. Weak: a sum of several units with a bare number among them is refused.
 */
export function parseLength(text: string, style: UnitStyle): Result<WrittenLength> {
  if (text.length > LONGEST) return refused('written-too-long', { most: LONGEST });
  const guess = GUESS.test(text);
  const tokens = listTokens(text.replace(GUESS, ''));
  if (!tokens.ok) return tokens;
  if (tokens.value.length === 0) return refused('length-empty');
  try {
    return done({ ...readWritten(new Reader(tokens.value), style), guess });
  } catch (problem) {
    if (problem instanceof CoreError) return refused(problem.code, problem.detail as Refusal['detail']);
    throw problem;
  }
}

/** Nobody writes a size at greater length; brackets in brackets stay few by it. */
export const LONGEST = 200;

/** As `parseLength`, for a size that must be larger than zero. */
export function parseSize(text: string, style: UnitStyle): Result<WrittenLength> {
  const length = parseLength(text, style);
  if (!length.ok || length.value.mm > 0) return length;
  return refused('length-not-positive', { mm: length.value.mm });
}

function readWritten(reader: Reader, style: UnitStyle): Omit<WrittenLength, 'guess'> {
  const main = readSum(reader);
  let margin: Sum | undefined;
  let percent = false;
  if (reader.takeSign('±')) {
    margin = readSum(reader);
    percent = reader.takeSign('%');
  }
  const rest = reader.peek();
  if (rest) throw new CoreError('not-understood', { text: rest.text });
  const perBare = bareUnit(main, percent ? undefined : margin, style);
  const mm = main.mm + main.bare * perBare;
  if (!isWithinReach(mm)) throw new CoreError('length-too-large');
  if (!margin) return { mm, plusMinus: undefined };
  const plusMinus = percent ? Math.abs(mm) * (margin.bare / 100) : margin.mm + margin.bare * perBare;
  if (!(plusMinus > 0)) throw new CoreError('plus-minus-not-positive');
  if (!isWithinReach(plusMinus)) throw new CoreError('length-too-large');
  return { mm, plusMinus };
}

function bareUnit(main: Sum, margin: Sum | undefined, style: UnitStyle): number {
  const units = new Set([...main.units, ...(margin?.units ?? [])]);
  if (main.bare !== 0 && main.units.size > 1) throw new CoreError('unit-unclear');
  const [only] = main.units.size > 0 ? main.units : units;
  if (only !== undefined) return only;
  return main.fraction || margin?.fraction ? MM_PER_INCH : mmPerBareNumber(style);
}

function readSum(reader: Reader): Sum {
  const sum: Sum = { mm: 0, bare: 0, units: new Set(), fraction: false };
  let factor = reader.takeSign('-') ? -1 : 1;
  for (;;) {
    const term = readProduct(reader);
    sum.mm += factor * term.mm;
    sum.bare += factor * term.bare;
    term.units.forEach((unit) => sum.units.add(unit));
    sum.fraction ||= term.fraction;
    if (reader.takeSign('+')) factor = 1;
    else if (reader.takeSign('-')) factor = -1;
    else return sum;
  }
}

function readProduct(reader: Reader): Sum {
  let product = readFactor(reader);
  for (;;) {
    if (reader.takeSign('*')) product = multiplied(product, readFactor(reader));
    else if (reader.takeSign('/')) {
      const divisor = readFactor(reader);
      if (divisor.mm !== 0) throw new CoreError('length-divided-by-length');
      if (divisor.bare === 0) throw new CoreError('divided-by-zero');
      product = { ...product, mm: product.mm / divisor.bare, bare: product.bare / divisor.bare };
    } else return product;
  }
}

function multiplied(a: Sum, b: Sum): Sum {
  if (a.units.size > 0 && b.units.size > 0) throw new CoreError('length-times-length');
  const [times, length] = a.units.size > 0 ? [b, a] : [a, b];
  return { ...length, mm: length.mm * times.bare, bare: length.bare * times.bare, fraction: length.fraction };
}

function readFactor(reader: Reader): Sum {
  if (!reader.takeSign('(')) return readQuantity(reader);
  const inner = readSum(reader);
  if (!reader.takeSign(')')) throw new CoreError('bracket-not-closed');
  return inner;
}

/** A mixed number and its unit, and after feet the inches: `17'-5"`, `5 ft 3 1/2 in`, `1' 4 1/2` (inches understood). */
function readQuantity(reader: Reader): Sum {
  const { value, fraction } = readMixed(reader);
  const unit = reader.peek();
  if (unit?.kind !== 'unit') return { mm: 0, bare: value, units: new Set(), fraction };
  reader.take();
  const sum: Sum = { mm: value * unit.mm, bare: 0, units: new Set([unit.mm]), fraction: false };
  if (unit.mm === MM_PER_FOOT) sum.mm += readInchesAfterFeet(reader);
  return sum;
}

function readInchesAfterFeet(reader: Reader): number {
  const dash =
    reader.isSign('-') && !reader.peek()?.spaced && reader.peek(1)?.kind === 'number' && !reader.peek(1)?.spaced;
  if (dash) reader.take();
  else if (reader.peek()?.kind !== 'number') return 0;
  const inches = readMixed(reader).value;
  const unit = reader.peek();
  if (unit?.kind !== 'unit') return inches * MM_PER_INCH;
  reader.take();
  return inches * unit.mm;
}

/** `5`, `5.5`, `5/16`, `1 5/16`, `1-5/16`. A proper fraction of a power of two is marked: it speaks of inches. */
function readMixed(reader: Reader): { value: number; fraction: boolean } {
  const first = reader.take();
  if (first.kind !== 'number') throw new CoreError('number-expected', { text: first.text });
  const plain = readFraction(reader, first);
  if (plain !== undefined) return { value: plain, fraction: true };
  const joined = reader.isSign('-') && !reader.peek()?.spaced ? 1 : 0;
  const numerator = reader.peek(joined);
  const mixed = first.whole && numerator?.kind === 'number' && (joined === 0 || !numerator.spaced);
  if (!mixed || !isProper(reader, joined)) return { value: first.value, fraction: false };
  if (joined) reader.take();
  reader.take();
  return { value: first.value + readFraction(reader, numerator)!, fraction: true };
}

function isProper(reader: Reader, at: number): boolean {
  const [top, bottom] = [reader.peek(at), reader.peek(at + 2)];
  return (
    top?.kind === 'number' &&
    bottom?.kind === 'number' &&
    reader.isSign('/', at + 1) &&
    top.whole &&
    bottom.whole &&
    top.value < bottom.value
  );
}

/** After a whole numerator: takes `/ denominator` when it is a proper fraction of an inch, else nothing. */
function readFraction(reader: Reader, top: Token): number | undefined {
  const bottom = reader.peek(1);
  if (top.kind !== 'number' || !top.whole || !reader.isSign('/') || bottom?.kind !== 'number' || !bottom.whole)
    return undefined;
  if (!(top.value < bottom.value && (INCH_DENOMINATORS.has(bottom.value) || bottom.value === 3))) return undefined;
  reader.take();
  reader.take();
  return top.value / bottom.value;
}
