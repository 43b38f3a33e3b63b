import { distance, nearestOn, type Vec } from '@/core/geometry';
import type { Derived } from '@/core/derive';
import type { Job } from '@/core/job';
import type { Chain, Shape } from '@/core/outline';

/** What the aim is on, among the outlines of one plane; pictures and locked layers cannot be picked. */
export interface Picked {
  readonly outline: string;
  readonly segment: number;
  readonly t: number;
}

export function findPicked(
  job: Pick<Job, 'layers' | 'outlines'>,
  derived: Pick<Derived, 'shapes'>,
  plane: string,
  at: Vec,
  reach: number,
): Picked | undefined {
  return listPicked(job, derived, plane, at, reach)[0];
}

/** All outlines within reach, each where it is nearest; the nearest first. */
export const listPicked = (...of: Parameters<typeof listNear>): readonly Picked[] =>
  listNear(...of).map(({ on }) => on);

/** Outlines within reach that lie over each other there: none of them farther off than the nearest by more than `slack`, which no hand can tell. */
export function listOver(slack: number, ...of: Parameters<typeof listNear>): readonly Picked[] {
  const found = listNear(...of);
  return found.filter(({ away }) => away <= found[0]!.away + slack).map(({ on }) => on);
}

function listNear(
  job: Pick<Job, 'layers' | 'outlines'>,
  { shapes }: Pick<Derived, 'shapes'>,
  plane: string,
  at: Vec,
  reach: number,
): readonly { readonly on: Picked; readonly away: number }[] {
  const open = new Set(job.layers.filter((layer) => layer.show && !layer.lock).map((layer) => layer.id));
  const found = job.outlines
    .filter((outline) => outline.plane === plane && open.has(outline.layer))
    .flatMap(({ id }) => {
      let best: { on: Picked; away: number } | undefined;
      shapes.get(id)?.pieces.forEach((piece, segment) => {
        const { distance: away, t } = nearestOn(piece, at);
        if (away <= reach && (!best || away < best.away)) best = { on: { outline: id, segment, t }, away };
      });
      return best ?? [];
    });
  return found.sort((a, b) => a.away - b.away);
}

/** The smallest circle around a place: where nothing is near enough, it is meant. */
export function findCircleAround(
  { outlines, layers }: Pick<Job, 'outlines' | 'layers'>,
  { shapes }: Pick<Derived, 'shapes'>,
  plane: string,
  at: Vec,
): string | undefined {
  const open = new Set(layers.filter(({ show, lock }) => show && !lock).map(({ id }) => id));
  const around = outlines
    .filter((outline) => outline.shape === 'circle' && outline.plane === plane && open.has(outline.layer))
    .flatMap(({ id }) => {
      const [round] = shapes.get(id)?.pieces ?? [];
      return round?.kind === 'arc' && distance(round.centre, at) < round.radius ? [{ id, radius: round.radius }] : [];
    });
  return around.sort((a, b) => a.radius - b.radius)[0]?.id;
}

/** The node within reach, nearest first. */
export function findNode(chain: Chain, shape: Shape, plane: Vec, reach: number): string | undefined {
  let best: { id: string; away: number } | undefined;
  chain.nodes.forEach((node, i) => {
    const away = distance(shape.nodes[i]!, plane);
    if (away <= reach && (!best || away < best.away)) best = { id: node.id, away };
  });
  return best?.id;
}

export interface HandleEnd {
  readonly node: string;
  readonly side: 'in' | 'out';
  readonly at: Vec;
}

/** The handle ends of a chain's curve segments, on the view plane. */
export function listHandles(chain: Chain, shape: Shape): readonly HandleEnd[] {
  return shape.pieces.flatMap((piece, i): HandleEnd[] => {
    if (piece.kind !== 'cubic') return [];
    const [from, to] = [chain.nodes[i]!, chain.nodes[(i + 1) % chain.nodes.length]!];
    return [
      { node: from.id, side: 'out', at: piece.b },
      { node: to.id, side: 'in', at: piece.c },
    ];
  });
}
