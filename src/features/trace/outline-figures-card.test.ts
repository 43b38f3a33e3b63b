import { doubtInWords } from './outline-figures-card';

it('says where most of a plus-minus comes from, and what lowers it; nothing where several have their part', () => {
  expect(doubtInWords({ pointed: 0.9, edges: 0 })).toMatch(/point again/);
  expect(doubtInWords({ pointed: 0.95, edges: 0.8 })).toMatch(/measure on the thing/);
  expect(doubtInWords({ pointed: 0.1, edges: 0.05 })).toMatch(/Fit says/);
  expect(doubtInWords({ pointed: 0.9, edges: 0.5 })).toBeUndefined();
  expect(doubtInWords({ pointed: 0.5, edges: 0 })).toBeUndefined();
});
