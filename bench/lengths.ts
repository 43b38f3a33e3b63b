/** Fits of many lengths, which agree or do not: how long they take. */
import { median } from '../src/core/basics';
import { allowanceOf, fitView, type FitInput, type Observation } from '../src/core/calibrate';
import { AT_ONCE } from '../src/store/judging';

/** Many lengths scattered over a 12 MP photo; those that are said to be wrong are. */
function manyLengths(count: number, isWrong: (i: number) => boolean = () => false): FitInput {
  const place = (i: number) => [300 + ((i * 977) % 3400), 300 + ((i * 613) % 2400)] as const;
  const points = Object.fromEntries(Array.from({ length: count + 7 }, (_, i) => [`p${i}`, { at: place(i), sigma: 1 }]));
  const evidence = Array.from({ length: count }, (_, i): Observation => {
    const [a, b] = [place(i), place(i + 7)];
    return {
      id: String(i),
      kind: 'length',
      from: `p${i}`,
      to: `p${i + 7}`,
      mm: (Math.hypot(a[0] - b[0], a[1] - b[1]) / 10) * (isWrong(i) ? 1.08 + i / 100 : 1),
      sigma: 0.1,
    };
  });
  return {
    picture: { width: 4032, height: 3024, kind: 'photo' as const, focal35mm: 52 },
    datum: { origin: [0, 3024] as const, direction: 0 },
    points,
    evidence,
    lift: { mm: 0, sigma: 1.5 },
  };
}

/** Milliseconds of a fit. */
export function fitTime(count: number, isWrong?: (i: number) => boolean): number {
  const input = manyLengths(count, isWrong);
  const times = Array.from({ length: 15 }, () => {
    const start = performance.now();
    fitView(input);
    return performance.now() - start;
  });
  return median(times);
}

/** How long a contradiction holds up whoever asks, how long judging it takes to its end, and having that judgement again from what was told. */
export function contradictedTimes(): readonly number[] {
  const input = manyLengths(20, (i) => i % 2 === 1);
  const time = (work: () => void) => {
    const start = performance.now();
    work();
    return performance.now() - start;
  };
  const atOnce = () => fitView({ ...input, allowance: allowanceOf(AT_ONCE.most) });
  atOnce();
  const whole = fitView(input);
  const verdict = whole.ok ? whole.value.verdict : undefined;
  return [time(atOnce), time(() => fitView(input)), time(() => fitView({ ...input, verdict }))];
}
