/** For tests only: what chance comes to. */
/** A hand that does anything: chances in turn, from 0 to below 1. */
export class Chance {
  private at = 0;
  private made = 0;
  constructor(
    private readonly numbers: readonly number[],
    private readonly step: number,
  ) {}
  next = (): number => this.numbers[this.at++ % this.numbers.length]!;
  of = <T>(list: readonly T[]): T => list[Math.floor(this.next() * list.length)]!;
  is = (): boolean => this.next() < 0.5;
  newId = (): string => `new${this.step}-${this.made++}`;
  between = (low: number, high: number): number => low + this.next() * (high - low);
  place = (): [number, number] => [this.between(-100, 5000), this.between(-100, 4000)];
  /** What somebody types: nothing now and then, or far too much. */
  text = (): string => this.of(['', 'Gate post', 'x'.repeat(90), 'y'.repeat(300), 'Käfig 🌿']);
  pointed = () => ({ kind: 'pointed' as const, at: this.place(), sigma: this.between(0.1, 3) });
}
