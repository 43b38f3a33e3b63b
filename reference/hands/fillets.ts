import { createDeriver, measureDimension, sayingOn } from '../../src/core/derive';
import { angleOf, scale, subtract, add, polar, type Vec } from '../../src/core/geometry';
import {
  addEvidence,
  addOutline,
  addRelations,
  addSheet,
  createJob,
  createView,
  runCommand,
  startHistory,
  type Evidence,
  type Sheet,
} from '../../src/core/job';
import type { Chain, CircleOutline, PointedPlace, Segment } from '../../src/core/outline';
import { listProposals, type RelationKind } from '../../src/core/relate';

/** A square-on picture of a rounded corner, px a mm; its scale is known as well as nobody needs to ask. */
const SCALE = 6.5;
const sheet: Sheet = {
  id: 's',
  name: 's',
  picture: 'a'.repeat(64),
  mediaType: 'image/png',
  bytes: 1,
  width: 2600,
  height: 2600,
  kind: 'scan',
  taken: {},
};
const length: Evidence = {
  id: 'e',
  kind: 'length',
  groups: [['p', 'q']],
  said: { length: { value: 380, written: '380' } },
  guess: false,
  role: 'use',
  plusMinus: 0.01,
};

export type FilletTool = 'arc' | 'tangent arc' | 'circle';

export interface Hand {
  normal(): number;
  /** One sigma across an edge, and whether the aim was caught by it: then that is what is said of it. px */
  readonly across: number;
  readonly caught: boolean;
  /** Between -1 and 1 or beyond: by how much of what is not seen a contact is off. */
  astray(): number;
  /** How far contacts are off along the edge: mm, or as far as nobody can see it. */
  readonly contacts?: number | undefined;
}

/** The radius of a fillet of this radius (mm) in a corner that turns by `turn` (radians), drawn by a hand with a tool; with `tangent` taken at both joints. mm, one sigma. */
export function drawFillet(radius: number, turn: number, tool: FilletTool, hand: Hand, tangent: boolean) {
  const { job, derived } = jobWith(radius, turn, tool, hand, tangent);
  return measureDimension(
    { kind: 'radius', on: [tool === 'circle' ? { outline: 'o' } : side(1)] },
    { job, derived },
    derived.shapes,
  );
}

/** At how many of its two joints it is proposed that a fillet is tangent. */
export function countTangentProposed(
  radius: number,
  turn: number,
  tool: Exclude<FilletTool, 'circle'>,
  hand: Hand,
): number {
  const { job, derived } = jobWith(radius, turn, tool, hand, false);
  const { outlines, relating } = sayingOn(['v'], job, derived);
  return listProposals(outlines, [], relating).filter(({ kind }) => kind === 'tangent').length;
}

const side = (i: number) => ({ outline: 'o', segment: `n${i}` });

function jobWith(radius: number, turn: number, tool: FilletTool, hand: Hand, tangent: boolean) {
  const px = radius * SCALE;
  const tip: Vec = [1300, 1300];
  const [back, ahead] = [polar(1, Math.PI), polar(1, turn)];
  const contact = px * Math.tan(turn / 2);
  const middleWay = angleOf(add(back, ahead));
  const centre = add(tip, scale(polar(1, middleWay), px / Math.cos(turn / 2)));
  // Nobody takes a contact for another place than on the quarter of the arc that is next to it.
  const along = Math.min(
    hand.contacts === undefined ? Math.sqrt(2 * px * Math.max(hand.across, 0.5)) : hand.contacts * SCALE,
    (px * turn) / 4,
  );
  const pointed = (at: Vec, normal: number, slide = 0): PointedPlace => {
    const across = polar(hand.across * hand.normal(), normal);
    const aside = polar(slide * hand.astray(), normal + Math.PI / 2);
    const place = add(add(at, across), aside);
    return { kind: 'pointed', at: place, sigma: 0.6, ...(hand.caught ? { edge: { normal, sigma: hand.across } } : {}) };
  };
  const onArc = (share: number) => {
    const [from, to] = [
      angleOf(subtract(add(tip, scale(back, contact)), centre)),
      angleOf(subtract(add(tip, scale(ahead, contact)), centre)),
    ];
    const sweep = Math.atan2(Math.sin(to - from), Math.cos(to - from));
    const at = from + share * sweep;
    return pointed(add(centre, polar(px, at)), at);
  };
  const reach = contact + 60 * SCALE;
  const places = [
    pointed(add(tip, scale(back, reach)), Math.PI / 2),
    pointed(add(tip, scale(back, contact)), Math.PI / 2, along),
    pointed(add(tip, scale(ahead, contact)), turn + Math.PI / 2, along),
    pointed(add(tip, scale(ahead, reach)), turn + Math.PI / 2),
  ];
  const round: Segment = tool === 'arc' ? { kind: 'arc', through: onArc(0.5) } : { kind: 'tangent' };
  const chain: Chain = {
    shape: 'chain',
    id: 'o',
    layer: 'outline',
    plane: 'v',
    closed: false,
    nodes: places.map((place, i) => ({ id: `n${i}`, place, smooth: false })),
    segments: [{ kind: 'line' }, round, { kind: 'line' }],
  };
  const circle: CircleOutline = {
    shape: 'circle',
    id: 'o',
    layer: 'outline',
    plane: 'v',
    by: { kind: 'three', a: onArc(0.05), b: onArc(0.5), c: onArc(0.95) },
  };
  const relations = [0, 1].map((i) => ({
    id: `r${i}`,
    plane: 'v',
    kind: 'tangent' as RelationKind,
    on: [side(i), side(i + 1)],
  }));
  const commands = [
    addSheet(sheet, createView('v', sheet)),
    addEvidence('v', length, [
      { id: 'p', at: [50, 50], sigma: 0.01 },
      { id: 'q', at: [50 + 380 * SCALE, 50], sigma: 0.01 },
    ]),
    addOutline(tool === 'circle' ? circle : chain),
    ...(tangent && tool !== 'circle' ? [addRelations(relations)] : []),
  ];
  const { job } = commands.reduce(
    (now, command) => runCommand(now, command),
    startHistory(createJob('j', 'Job', new Date(0))),
  );
  return { job, derived: createDeriver()(job) };
}
