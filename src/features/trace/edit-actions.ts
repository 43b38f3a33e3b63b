import type { FittedView } from '@/core/derive';
import { distance, type Vec } from '@/core/geometry';
import { addOutlines, addRelations, changeOutline, changeOutlines, joinOutlines, together, type Command, type Job } from '@/core/job';
import type { Relation, RelationEnd } from '@/core/relate';
import {
  copiedOutline, findClosed, findPosition, findWithoutNode, joinedChains, placingOf, reversedChain, shapeOf, shiftedOutline, withNodeOn, withSmooth,
  type Chain, type Editing, type Finding, type Outline, type Place, type Placing,
} from '@/core/outline';
import { newId } from '@/store';

/** Sigma of places that an edit makes on an existing outline: as good as an edge can be pointed at. Sheet px. */
const EDIT_SIGMA = 0.5;

export function editingIn({ fit }: FittedView): Editing {
  return { toSheet: (plane) => fit.toSheet(plane), newId, sigma: EDIT_SIGMA };
}

function placingFor(outline: Outline, fitted: FittedView): Placing {
  return outline.shape === 'chain' ? placingOf(outline, fitted.placing) : { ...fitted.placing, findNode: () => undefined };
}

/** Moves outlines by typed amounts, mm. */
export function moveBy(outlines: readonly Outline[], by: Vec, fitted: FittedView): Command {
  const { toSheet } = editingIn(fitted);
  const moved = outlines.map((outline) => {
    const placing = placingFor(outline, fitted);
    const seen = (place: Place): Vec => {
      const at = findPosition(place, placing) ?? [0, 0];
      return toSheet([at[0] + by[0], at[1] + by[1]]);
    };
    return shiftedOutline(outline, by, seen);
  });
  return changeOutlines(moved, 'outlines-moved');
}

/** Copies of outlines in place, ready to be moved; the ids of the copies come back with the command. */
/** Copies of outlines, with what is said of them alone: a copied rectangle is a rectangle. */
export function duplicate(outlines: readonly Outline[], relations: readonly Relation[]): { readonly command: Command; readonly ids: readonly string[] } {
  const copies = outlines.map((outline) => copiedOutline(outline, newId));
  const named = new Map(outlines.flatMap((outline, i) => {
    const copy = copies[i]!;
    const nodes = outline.shape === 'chain' && copy.shape === 'chain' ? outline.nodes.map(({ id }, n) => [`${outline.id}/${id}`, copy.nodes[n]!.id] as const) : [];
    return [[outline.id, copy.id] as const, ...nodes];
  }));
  const renamed = ({ outline, node, segment }: RelationEnd): RelationEnd => ({
    outline: named.get(outline)!, ...(node === undefined ? {} : { node: named.get(`${outline}/${node}`) ?? node }), ...(segment === undefined ? {} : { segment: named.get(`${outline}/${segment}`) ?? segment }),
  });
  const own = relations.filter(({ kind, on }) => on.every(({ outline }) => named.has(outline)) && kind !== 'across' && kind !== 'up').map((relation): Relation => ({ ...relation, id: newId(), on: relation.on.map(renamed) }));
  return { command: together([addRelations(own), addOutlines(copies, 'outlines-copied')]), ids: copies.map((copy) => copy.id) };
}

export function findNodeDeleted(chain: Chain, node: string): Command | undefined {
  const rest = findWithoutNode(chain, node);
  return rest && changeOutline(rest, 'point-deleted');
}

export function nodeAdded(chain: Chain, segment: { readonly index: number; readonly t: number }, fitted: FittedView): Command {
  const shape = shapeOf(chain, fitted.placing);
  return changeOutline(withNodeOn(chain, shape, segment.index, segment.t, editingIn(fitted)), 'point-added');
}

export function smoothSet(chain: Chain, node: string, smooth: boolean): Command {
  return changeOutline(withSmooth(chain, node, smooth), smooth ? 'smooth-made' : 'corner-made');
}

/** How near two ends have to be to become one point when they are healed: nearer than anybody points. */
const MERGE_SIGMAS = 8;

function mergeReach(fitted: FittedView): number {
  const [a, b] = [fitted.placing.toPlane([0, 0]), fitted.placing.toPlane([1, 0])];
  return distance(a, b) * MERGE_SIGMAS * EDIT_SIGMA;
}

export function findClosing(chain: Chain, fitted: FittedView): Command | undefined {
  const closed = findClosed(chain, shapeOf(chain, fitted.placing), mergeReach(fitted));
  return closed && changeOutline(closed, 'outline-closed');
}

/** Heals an open end: with its own other end it closes the outline, with another outline's end it joins the two. */
export function findHealing(finding: Extract<Finding, { kind: 'open' }>, job: Job, fitted: FittedView): Command | undefined {
  const findChain = (id: string) => job.outlines.find((outline): outline is Chain => outline.id === id && outline.shape === 'chain');
  const { partner } = finding;
  const [own, other] = [findChain(finding.outline), partner && findChain(partner.outline)];
  if (!own || !partner) return undefined;
  if (partner.outline === finding.outline) return findClosing(own, fitted);
  if (!other) return undefined;
  const editing = editingIn(fitted);
  const turned = (chain: Chain) => reversedChain(chain, shapeOf(chain, fitted.placing), editing);
  const first = finding.end === 'end' ? own : turned(own);
  const second = partner.end === 'start' ? other : turned(other);
  return joinOutlines(joinedChains(first, second, finding.gap, mergeReach(fitted)), other.id);
}
