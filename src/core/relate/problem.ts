import { distance, pointAt, type Vec } from '../geometry';
import { asPointed, placingOf, shapeOf, type Chain, type CircleOutline, type Placing } from '../outline';
import { blocksOf, circleBlock, findElement, findElementBefore, nodeBlock, seen, throughBlock } from './element';
import { EQUATIONS } from './equations';
import { addMap, addPlace, TRACED, type Gathered } from './observed';
import type { RelatingPlane, RelatingPlanes } from './plane';
import type { Relatable } from './relatable';

/** Adds everything that is known about outlines on their planes. Returns the ids of those that have a shape. */
export function gatherOutlines(
  outlines: readonly Relatable[],
  planes: RelatingPlanes,
): Gathered & { readonly known: ReadonlyMap<string, Relatable> } {
  const into: Gathered = { blocks: [], conditions: [] };
  if (outlines[0]) addMap(into, planes(outlines[0].plane));
  const known = new Map<string, Relatable>();
  for (const drawn of outlines) {
    const plane = planes(drawn.plane);
    const outline = asPointed(drawn, plane.knowing);
    const own: Gathered = { blocks: [], conditions: [] };
    const stands = outline.shape === 'chain' ? addChain(own, plane, outline) : addCircle(own, plane, outline);
    if (!stands) continue;
    into.blocks.push(...own.blocks);
    into.conditions.push(...own.conditions);
    known.set(outline.id, outline);
  }
  return { ...into, known };
}

function addChain(into: Gathered, plane: RelatingPlane, chain: Chain): boolean {
  const placing = placingOf(chain, plane);
  const blockOf = (id: string) => nodeBlock(chain.id, id);
  const nodes = chain.nodes.every(({ id, place }) => addPlace(into, plane, placing, blockOf(id), place, blockOf));
  if (!nodes) return false;
  chain.segments.forEach(({ kind }, i) => kind === 'tangent' && addTangentArc(into, plane, chain, i));
  return chain.segments.every(
    (segment, i) =>
      segment.kind !== 'arc' ||
      addPlace(into, plane, placing, throughBlock(chain.id, chain.nodes[i]!.id), segment.through, blockOf),
  );
}

/** A tangent arc is tangent to what it leans on, and goes through the place half-way along it. */
function addTangentArc(into: Gathered, plane: RelatingPlane, chain: Chain, index: number): void {
  const from = chain.nodes[index]!.id;
  const [before, arc] = [
    findElementBefore(chain, from),
    findElement({ outline: chain.id, segment: from }, new Map([[chain.id, chain]])),
  ];
  const piece = shapeOf(chain, plane).pieces[index];
  if (!before || arc?.kind !== 'arc' || !piece) return;
  into.blocks.push({ id: arc.through, start: pointAt(piece, 0.5) });
  const leaned = blocksOf(before).length;
  into.conditions.push({
    group: TRACED,
    origin: 'stated',
    exact: true,
    blocks: [...blocksOf(before), ...blocksOf(arc)],
    residuals: (values) => {
      const [a, through, b] = values.slice(leaned).map(([x, y]): Vec => [x!, y!]) as [Vec, Vec, Vec];
      return [
        ...EQUATIONS.tangent([seen(before, values.slice(0, leaned)), seen(arc, values.slice(leaned))], 0),
        distance(through, a) - distance(through, b),
      ];
    },
  });
}

const NO_NODES = () => '';

/** A circle has a centre and a radius; what was pointed lies on its rim, across it, or is its centre. */
function addCircle(into: Gathered, plane: RelatingPlane, outline: CircleOutline): boolean {
  const placing: Placing = { ...plane, nodeAt: () => undefined };
  const [piece] = shapeOf(outline, plane).pieces;
  if (piece?.kind !== 'arc') return false;
  const { by, id } = outline;
  const block = circleBlock(id);
  into.blocks.push({ id: block, start: [...piece.centre, piece.radius] });
  const places =
    by.kind === 'rim'
      ? { centre: by.centre, rim: by.rim }
      : by.kind === 'two'
        ? { a: by.a, b: by.b }
        : { a: by.a, b: by.b, c: by.c };
  if (
    !Object.entries(places).every(([name, place]) =>
      addPlace(into, plane, placing, `${block}:${name}`, place, NO_NODES),
    )
  )
    return false;
  const names = Object.keys(places).map((name) => `${block}:${name}`);
  into.conditions.push({
    group: TRACED,
    origin: 'stated',
    exact: true,
    blocks: [block, ...names],
    residuals: ([circle, ...at]) => missOfCircle(by.kind, circle!, at),
  });
  return true;
}

function missOfCircle(
  kind: CircleOutline['by']['kind'],
  [x, y, radius]: readonly number[],
  at: readonly (readonly number[])[],
): number[] {
  const [a, b] = at as readonly (readonly [number, number])[] as [Vec, Vec];
  if (kind === 'rim') return [x! - a[0], y! - a[1], distance(a, b) - radius!];
  if (kind === 'two') return [x! - (a[0] + b[0]) / 2, y! - (a[1] + b[1]) / 2, distance(a, b) / 2 - radius!];
  return at.map((place) => Math.hypot(place[0]! - x!, place[1]! - y!) - radius!);
}
