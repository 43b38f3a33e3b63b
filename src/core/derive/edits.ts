import { distance } from '../geometry';
import { addOutlines, addRelations, changeOutline, joinOutlines, together, type Command, type Job } from '../job';
import type { Relation, RelationEnd } from '../relate';
import {
  copiedOutline,
  findClosed,
  findWithoutNode,
  joinedChains,
  loosened,
  reversedChain,
  shapeOf,
  withNodeOn,
  withSmooth,
  type Chain,
  type Finding,
  type Outline,
} from '../outline';
import { editingIn, type Editor } from './editing';
import type { FittedView } from './fits';

/** Copies of outlines in place, with what is said of them alone: a copied rectangle is a rectangle. The ids of the copies come back with the command. */
export function duplicate(
  outlines: readonly Outline[],
  relations: readonly Relation[],
  newId: () => string,
): { readonly command: Command; readonly ids: readonly string[] } {
  const copies = outlines.map((outline) => copiedOutline(outline, newId));
  const named = new Map(
    outlines.flatMap((outline, i) => {
      const copy = copies[i]!;
      const nodes =
        outline.shape === 'chain' && copy.shape === 'chain'
          ? outline.nodes.map(({ id }, n) => [`${outline.id}/${id}`, copy.nodes[n]!.id] as const)
          : [];
      return [[outline.id, copy.id] as const, ...nodes];
    }),
  );
  const renamed = ({ outline, node, segment }: RelationEnd): RelationEnd => ({
    outline: named.get(outline)!,
    ...(node === undefined ? {} : { node: named.get(`${outline}/${node}`) ?? node }),
    ...(segment === undefined ? {} : { segment: named.get(`${outline}/${segment}`) ?? segment }),
  });
  const own = relations
    .filter(({ kind, on }) => on.every(({ outline }) => named.has(outline)) && kind !== 'across' && kind !== 'up')
    .map((relation): Relation => ({ ...relation, id: newId(), on: relation.on.map(renamed) }));
  return {
    command: together([addRelations(own), addOutlines(copies, 'outlines-copied')]),
    ids: copies.map((copy) => copy.id),
  };
}

export function findNodeDeleted(chain: Chain, node: string): Command | undefined {
  const rest = findWithoutNode(chain, node);
  return rest && changeOutline(rest, 'point-deleted');
}

export function nodeAdded(
  chain: Chain,
  segment: { readonly index: number; readonly t: number },
  editor: Editor,
): Command {
  const shape = shapeOf(chain, editor.fitted.placing);
  return changeOutline(withNodeOn(chain, shape, segment.index, segment.t, editingIn(editor)), 'point-added');
}

export function smoothSet(chain: Chain, node: string, smooth: boolean): Command {
  return changeOutline(withSmooth(chain, node, smooth), smooth ? 'smooth-made' : 'corner-made');
}

/** How near two ends have to be to become one point when they are healed: nearer than anybody points. Sheet px. */
const MERGE_REACH = 4;

function mergeReach(fitted: FittedView): number {
  const [a, b] = [fitted.placing.toPlane([0, 0]), fitted.placing.toPlane([1, 0])];
  return distance(a, b) * MERGE_REACH;
}

export function findClosing(chain: Chain, fitted: FittedView): Command | undefined {
  const closed = findClosed(chain, shapeOf(chain, fitted.placing), mergeReach(fitted));
  return closed && changeOutline(closed, 'outline-closed');
}

/** Heals an open end: with its own other end it closes the outline, with another outline's end it joins the two. */
export function findHealing(
  finding: Extract<Finding, { kind: 'open' }>,
  job: Job,
  editor: Editor,
): Command | undefined {
  const { fitted } = editor;
  const findChain = (id: string) =>
    job.outlines.find((outline): outline is Chain => outline.id === id && outline.shape === 'chain');
  const { partner } = finding;
  const [own, other] = [findChain(finding.outline), partner && findChain(partner.outline)];
  if (!own || !partner) return undefined;
  if (partner.outline === finding.outline) return findClosing(own, fitted);
  if (!other) return undefined;
  const editing = editingIn(editor);
  const turned = (chain: Chain) => reversedChain(chain, shapeOf(chain, fitted.placing), editing);
  // One that bends evenly and one that does not keep their curves as they are.
  const held = (chain: Chain) =>
    Boolean(own.even) === Boolean(other.even) ? chain : loosened(chain, shapeOf(chain, fitted.placing), editing);
  const first = held(finding.end === 'end' ? own : turned(own));
  const second = held(partner.end === 'start' ? other : turned(other));
  return joinOutlines(joinedChains(first, second, finding.gap, mergeReach(fitted)), other.id);
}
