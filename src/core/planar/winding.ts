import { edgeOf, isForward, OUTSIDE, twin, type Arrangement } from './arrangement';

/**
 * How often what was arranged runs around each face, from the faces next to it: crossing an edge from right to left adds what lies on it. `weightOf` says how much
 * a given piece counts. Undefined when two ways to a face disagree: then what was given is not closed, or was too close to call.
 */
export function findWindings(
  { edges, faces, faceOf }: Arrangement,
  weightOf: (piece: number) => number,
): ((face: number) => number) | undefined {
  const gain = edges.map(({ sources }) =>
    sources.reduce((sum, { of, from, to }) => sum + (to > from ? 1 : -1) * weightOf(of), 0),
  );
  const beside = [
    ...faces.map(({ around, holes }) => [...around.halves, ...holes.flatMap(({ halves }) => halves)]),
    faceOf.flatMap((face, half) => (face === OUTSIDE ? [half] : [])),
  ];
  const at = (face: number) => (face === OUTSIDE ? faces.length : face);
  const known = new Array<number | undefined>(faces.length + 1).fill(undefined);
  known[faces.length] = 0;
  const open = [OUTSIDE];
  for (let face = open.pop(); face !== undefined; face = open.pop()) {
    for (const half of beside[at(face)]!) {
      const other = faceOf[twin(half)]!;
      const there = known[at(face)]! + (isForward(half) ? -1 : 1) * gain[edgeOf(half)]!;
      if (known[at(other)] === undefined) {
        known[at(other)] = there;
        open.push(other);
      } else if (known[at(other)] !== there) return undefined;
    }
  }
  return (face) => known[at(face)] ?? 0;
}
