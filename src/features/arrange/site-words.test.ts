/** What is said of a drawing that is set on another: each edge by how long it is, so that it is told from the others. */
import { readFileSync } from 'node:fs';
import { createDeriver } from '@/core/derive';
import { readJob } from '@/core/job';
import { edgeInWords, holdInWords, lengthsOfEdges } from './site-words';

const read = readJob(JSON.parse(readFileSync('public/demo/orchard.json', 'utf8')));
if (!read.ok) throw new Error(read.code);
const demo = read.value;
const [siting] = demo.sitings;
const { shapes } = createDeriver()(demo);
const lengthOf = lengthsOfEdges(demo, shapes, demo.units);
const said = (lengths: typeof lengthOf) => siting!.holds.map((hold) => holdInWords(hold, lengths));

it('every hold says which edges it is of, in the units of the job', () => {
  expect(said(lengthOf)).toEqual([
    'Its edge of 5.10 m runs along the edge of 18.14 m here',
    'From the edge of 18.14 m here to its edge of 5.10 m',
    'Along the edge of 18.14 m here, from its beginning to its corner',
  ]);
  expect(said(lengthsOfEdges(demo, shapes, { ...demo.units, style: 'mm' }))[1]).toMatch(
    /^From the edge of 181\d\d mm here to its edge of 5\d\d\d mm$/,
  );
});

it('a neighbour of an edge is another one', () => {
  const [, { own }] = siting!.holds as readonly [unknown, { readonly own: { readonly outline: string } }];
  const neighbour = { outline: own.outline, segment: 'house-3' };
  expect(lengthOf(neighbour)).toMatch(/ m$/);
  expect(lengthOf(neighbour)).not.toBe(lengthOf(siting!.holds[1]!.own));
});

it('what is gone has no length, and is said without', () => {
  expect(said(lengthsOfEdges({ outlines: [] }, shapes, demo.units))).toEqual([
    'Its edge runs along the edge here',
    'From the edge here to its edge',
    'Along the edge here, from its beginning to its corner',
  ]);
});

it('an edge to keep from is said by its number and its length, and that it is gone', () => {
  const [edge] = demo.setbacks[0]!.on;
  expect(edgeInWords(edge, demo, lengthOf)).toBe('Edge 1, 18.14 m');
  expect(edgeInWords(edge, { outlines: [] }, lengthOf)).toBe('An edge that is gone');
});
