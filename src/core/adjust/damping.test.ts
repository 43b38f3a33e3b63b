import fc from 'fast-check';
import { beginDamping, eased, dampedMore } from './damping';

const share = fc.double({ min: -11, max: 11, noNaN: true }).map((exponent) => 10 ** exponent);

it('a step that gains what was promised eases damping, one that gains less than half of it raises it, and a better one never raises it more', () => {
  fc.assert(
    fc.property(share, fc.double({ min: -1, max: 3, noNaN: true }), (before, gain) => {
      const { share: after } = eased(beginDamping(before), gain);
      if (gain > 0.5) expect(after).toBeLessThanOrEqual(before);
      if (gain < 0.5) expect(after).toBeGreaterThanOrEqual(before);
      expect(after).toBeGreaterThanOrEqual(0.0999 * before);
      expect(after).toBeLessThanOrEqual(2.0001 * before);
      expect(after).toBeGreaterThanOrEqual(eased(beginDamping(before), gain + 0.1).share);
    }),
  );
});

it('steps that lead nowhere raise it ever faster, until one is taken', () => {
  const [first, second, third] = [1, 2, 3].map((times) => {
    let damping = beginDamping(1e-6);
    for (let i = 0; i < times; i++) damping = dampedMore(damping);
    return damping;
  });
  expect(second!.share / first!.share).toBeGreaterThan(first!.share / 1e-6);
  expect(third!.share / second!.share).toBeGreaterThan(second!.share / first!.share);
  expect(dampedMore(eased(third!, 1)).share).toBeCloseTo(0.4 * third!.share);
});

it('however often, it stays a number that can be divided by', () => {
  let [low, high] = [beginDamping(1), beginDamping(1)];
  for (let i = 0; i < 60; i++) [low, high] = [eased(low, 1), dampedMore(high)];
  expect([low.share, high.share]).toEqual([1e-12, 1e12]);
});
