import { add, angleOf, applied, movedPath, placed, polar, subtract, type Affine, type Vec } from '../geometry';
import { flattened } from './edit';
import { mapPlaces, type DrawnOutline, type Outline } from './outline';
import { findPosition, type Place, type Placing } from './place';
import { pointedAt, type Editing } from './segment';
import { shapeOf } from './shape';
import { standingAlone } from './stand';

/** Turned and scaled about a place, mirrored (left and right exchanged) before that. Radians. */
export interface Moving {
  readonly about: Vec;
  readonly turn: number;
  /** Across and up. */
  readonly scale: Vec;
  readonly mirrored: boolean;
}

export function mapOf({ about, turn, scale, mirrored }: Moving): Affine {
  const [a, b, c, d] = placed([0, 0], turn, mirrored ? -scale[0] : scale[0], scale[1]);
  return [a, b, c, d, about[0] - a * about[0] - c * about[1], about[1] - b * about[0] - d * about[1]];
}

/**
 * An outline turned, scaled or mirrored where it lies. Every place goes where the map puts it and is as good there as an edge can be pointed at; typed displacements do
 * not outlive it, finished corners grow with it. Where across and up differ, what is round becomes pieces of ellipses on fresh nodes, and finished corners pieces of
 * their own. What is made of others follows them and is left as it is.
 */
export function movedOutline<O extends Outline>(outline: O, moving: Moving, placing: Placing, editing: Editing): O {
  if (outline.shape === 'made') return outline;
  const map = mapOf(moving);
  if (moving.scale[0] !== moving.scale[1] && isRoundSomewhere(outline))
    return distorted(outline, map, placing, editing) as O;
  const flat = outline.shape === 'chain' ? (flattened(outline) as O) : outline;
  const put = (place: Place): Place => {
    const at = findPosition(place, placing);
    return at ? pointedAt(applied(map, at), editing) : place;
  };
  const placed = mapPlaces(flat, put);
  return placed.shape === 'chain' ? withHandlesMoved(placed, outline, map, moving, placing, editing) : placed;
}

const isRoundSomewhere = (outline: DrawnOutline): boolean =>
  outline.shape !== 'chain' ||
  outline.segments.some(({ kind }) => kind !== 'line' && kind !== 'curve') ||
  outline.nodes.some(({ corner }) => corner);

function distorted(outline: DrawnOutline, map: Affine, placing: Placing, editing: Editing): DrawnOutline {
  const [stands] = standingAlone(
    shapeOf(outline, placing).paths.map((path) => movedPath(path, map)),
    outline,
    editing,
  );
  return stands ? { ...stands, id: outline.id, ...(outline.aid ? { aid: true } : {}) } : outline;
}

function withHandlesMoved<O extends Outline>(
  outline: O,
  before: Outline,
  map: Affine,
  { mirrored, scale }: Moving,
  placing: Placing,
  editing: Editing,
): O {
  if (outline.shape !== 'chain' || before.shape !== 'chain') return outline;
  const nodes = outline.nodes.map((node, i) => {
    const at = findPosition(before.nodes[i]!.place, placing) ?? [0, 0];
    const handle = (by: Vec | undefined) =>
      by &&
      subtract(editing.toSheet(applied(map, handleAt(at, by, placing, editing))), editing.toSheet(applied(map, at)));
    const direction =
      node.direction === undefined
        ? {}
        : { direction: angleOf(subtract(applied(map, polar(1, node.direction)), applied(map, [0, 0]))) };
    const corner = node.corner && { ...node.corner, size: node.corner.size * scale[0] };
    return {
      ...node,
      ...direction,
      ...(node.handleIn ? { handleIn: handle(node.handleIn) } : {}),
      ...(node.handleOut ? { handleOut: handle(node.handleOut) } : {}),
      ...(corner ? { corner } : {}),
    };
  });
  const segments = outline.segments.map((segment) =>
    segment.kind === 'ellipse' && mirrored ? { ...segment, sweep: -segment.sweep } : segment,
  );
  return { ...outline, nodes, segments };
}

/** A handle's end on the plane. Handles are kept relative to their node on the sheet. */
const handleAt = (at: Vec, by: Vec, placing: Placing, editing: Editing): Vec =>
  placing.toPlane(add(editing.toSheet(at), by));
