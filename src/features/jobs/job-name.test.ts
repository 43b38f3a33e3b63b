import { firstFree } from '@/core/basics';
import { nameFor } from './job-name';

const at = new Date(2026, 4, 14, 10, 21).getTime();
const named = (name: string, ...taken: readonly string[]) => nameFor({ name, lastModified: at }, new Set(taken));

it.each([
  ['pruner-blade.jpg', 'pruner-blade'],
  ['garden_bench  plan.pdf', 'garden bench plan'],
  ['Nest box v1.2.png', 'Nest box v1.2'],
  ['trowel', 'trowel'],
])('%s is called %s', (file, name) => expect(named(file)).toBe(name));

it.each([
  'IMG_20260514_102130.jpg',
  'DSC0123.JPG',
  'PXL_20260514.jpg',
  '20260514-102130.jpg',
  'image.png',
  'scan (3).tif',
  '.jpg',
  'Screenshot 2026-05-14.png',
])('%s, which nobody named, is called after when it was taken', (file) => {
  expect(named(file)).toMatch(/^Picture of .*14/);
});

it('no two jobs have one name, and none is too long to be kept', () => {
  expect(named('blade.jpg', 'blade')).toBe('blade 2');
  expect(named('blade.jpg', 'blade', 'blade 2', 'blade 3')).toBe('blade 4');
  expect(firstFree(new Set(['Job 1', 'Job 3']), (count) => `Job ${count}`)).toBe('Job 2');
  expect(named(`${'a'.repeat(300)}.jpg`)).toHaveLength(80);
});
