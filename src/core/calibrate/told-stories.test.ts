/** How much is told before it is known what does not belong, counted in pieces adjusted and not in time. */
import { allowanceOf, fitView, type Observation } from '.';

/** Lengths of up to 200 mm all over a photo of 10 px/mm that was taken square-on, one of them read a tenth too long. */
function lengths(count: number, wrong: number) {
  const place = (i: number) => [300 + ((i * 977) % 3400), 300 + ((i * 613) % 2400)] as const;
  const points = Object.fromEntries(Array.from({ length: count + 7 }, (_, i) => [`p${i}`, { at: place(i), sigma: 1 }]));
  const evidence = Array.from({ length: count }, (_, i): Observation => {
    const [a, b] = [place(i), place(i + 7)];
    const mm = (Math.hypot(a[0] - b[0], a[1] - b[1]) / 10) * (i === wrong ? 1.1 : 1);
    return { id: String(i), kind: 'length', from: `p${i}`, to: `p${i + 7}`, mm, sigma: 0.1 };
  });
  return { points, evidence };
}

it.each([
  [12, 3],
  [20, 1],
  [40, 17],
])(
  'of %d lengths the one that is wrong is named before the picture is looked at from every side without it',
  (count, wrong) => {
    const allowance = allowanceOf(1e6);
    const fit = fitView({
      ...lengths(count, wrong),
      picture: { width: 4032, height: 3024, kind: 'photo', focal35mm: 52 },
      datum: { origin: [0, 3024], direction: 0 },
      lift: { mm: 0, sigma: 1.5 },
      allowance,
    });
    expect(fit.ok && [fit.value.suspects, fit.value.suspectsKept]).toEqual([[String(wrong)], false]);
    // About thirty stories; one piece less from every side would be eight more.
    expect((1e6 - allowance.left) / count).toBeLessThan(MOST);
  },
);

const MOST = 40;
