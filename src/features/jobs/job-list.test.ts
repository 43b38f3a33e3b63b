import type { JobCard } from '@/store';
import { listSought } from './job-list';

jest.mock('@/store', () => ({}));

const cardOf = (name: string): JobCard => ({ id: name, name }) as JobCard;
const cards = ['Gate 10', 'Arbour', 'Gate 9', 'Garden gate, its latch', 'Orchard'].map(cardOf);
const names = (found: readonly JobCard[]) => found.map(({ name }) => name);

it('every word that is looked for is in the name, however it is written', () => {
  expect(names(listSought(cards, ' GATE ', 'newest'))).toEqual(['Gate 10', 'Gate 9', 'Garden gate, its latch']);
  expect(names(listSought(cards, 'latch gate', 'newest'))).toEqual(['Garden gate, its latch']);
  expect(listSought(cards, 'trowel', 'newest')).toEqual([]);
  expect(listSought(cards, '', 'newest')).toEqual(cards);
});

it('by name numbers count as numbers', () =>
  expect(names(listSought(cards, '', 'name'))).toEqual([
    'Arbour',
    'Garden gate, its latch',
    'Gate 9',
    'Gate 10',
    'Orchard',
  ]));
