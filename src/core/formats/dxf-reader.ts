import DxfParser, { type IBlock, type IEntity, type IInsertEntity } from 'dxf-parser';
import { done, isOnMap, refused, type Result } from '../basics';
import { composed, moved, placed, UNMOVED, type Affine } from '../geometry';
import { BY_GROUPS, findPiecesOfEntity, isClosedEntity, isFromBehind, withVertices } from './dxf-entities';
import { handlerOf } from './dxf-groups';
import { isSound, scaledPiece } from './drawing';
import { noCounts, type FilePath, type FileReading } from './file-reading';
import { readSections } from './dxf-sections';
import { MAX_PIECES } from './limits';

/** Millimetres in a drawing unit by $INSUNITS (DXF reference, header variables). */
const MM_PER_INSUNIT: Readonly<Record<number, number>> = {
  1: 25.4,
  2: 304.8,
  3: 1_609_344,
  4: 1,
  5: 10,
  6: 1000,
  7: 1e6,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
  15: 10_000,
  16: 100_000,
  21: 1200 / 3.937,
};

/** Kinds that the parser would pass over without a word; here they are counted. */
const UNREAD = [
  'HATCH',
  'LEADER',
  'MLINE',
  'REGION',
  '3DSOLID',
  'BODY',
  'MESH',
  'SURFACE',
  'IMAGE',
  'WIPEOUT',
  'RAY',
  'XLINE',
  'MULTILEADER',
  'TOLERANCE',
  'SHAPE',
];
/** Blocks in blocks in blocks: deeper than this nobody draws, only a file that goes round in circles. */
const DEEPEST = 16;

interface Gathering {
  readonly blocks: Readonly<Record<string, IBlock>>;
  readonly mm: number;
  readonly paths: FilePath[];
  readonly ignored: Record<string, number>;
  pieces: number;
}

/** Units that have a name of ours; of others only their length is told. */
const NAMED_UNITS = [
  { unit: 'mm', mm: 1 },
  { unit: 'inch', mm: 25.4 },
] as const;

/**
 * Reads a DXF with a parser that shares nothing with the writer: lines, arcs, circles, ellipses, polylines with bulges, splines, and blocks where
 * they are put in. mm out; without a unit a drawing unit is taken as one. What is no line work is counted by kind.
 * Refused: what is no DXF, and more than a million pieces. Left out: paper space, what is said to be invisible.
 */
export function readDxf(text: string): Result<FileReading> {
  // Old files end their lines with a carriage return alone.
  const sections = readSections(text.includes('\n') ? text : text.replaceAll('\r', '\n'));
  const dxf = sections && parsed(sections.drawn);
  if (!dxf) return refused('dxf-not-understood');
  const mm = MM_PER_INSUNIT[sections.units];
  const gathering: Gathering = { blocks: dxf.blocks ?? {}, mm: mm ?? 1, paths: [], ignored: noCounts(), pieces: 0 };
  try {
    for (const entity of withVertices(dxf.entities ?? [])) gather(gathering, entity, UNMOVED, entity.layer, 0);
  } catch (problem) {
    if (problem instanceof TooMany) return refused('reference-too-large', { most: MAX_PIECES });
    return refused('dxf-not-understood');
  }
  return done({
    unit: NAMED_UNITS.find((named) => named.mm === mm)?.unit,
    unitMm: mm,
    paths: gathering.paths,
    ignored: total(gathering.ignored),
    ignoredKinds: gathering.ignored,
    hidden: sections.hidden,
  });
}

class TooMany extends Error {}

function parsed(text: string) {
  try {
    const parser = new DxfParser();
    for (const name of [...BY_GROUPS, ...UNREAD]) parser.registerEntityHandler(handlerOf(name) as never);
    return parser.parseSync(text);
  } catch {
    return undefined;
  }
}

const total = (counts: Readonly<Record<string, number>>) =>
  Object.values(counts).reduce((sum, count) => sum + count, 0);

/** Adds an entity where a map puts it. What lies on layer 0 of a block lies on the layer of its insertion. */
function gather(into: Gathering, entity: IEntity, map: Affine, layer: string, depth: number): void {
  if (entity.inPaperSpace || entity.visible === false) return;
  if (entity.type === 'INSERT') return gatherBlock(into, entity as IInsertEntity, map, layer, depth);
  const shown = findPiecesOfEntity(entity)?.map((piece) =>
    scaledPiece(map === UNMOVED ? piece : moved(piece, map), into.mm),
  );
  if (!shown?.every((piece) => isSound(piece, isOnMap))) {
    into.ignored[entity.type] = (into.ignored[entity.type] ?? 0) + 1;
    return;
  }
  into.pieces += shown.length;
  if (into.pieces > MAX_PIECES) throw new TooMany();
  if (shown.length > 0) into.paths.push({ layer, closed: isClosedEntity(entity), pieces: shown });
}

/** How often something is put in; once where that is no count. */
const timesOf = (count: number) => Math.max(1, Math.floor(count) || 1);

function gatherBlock(into: Gathering, insert: IInsertEntity, map: Affine, layer: string, depth: number): void {
  const block = into.blocks[insert.name];
  if (!block?.entities || depth >= DEEPEST) {
    into.ignored.INSERT = (into.ignored.INSERT ?? 0) + 1;
    return;
  }
  const {
    position,
    rotation = 0,
    xScale = 1,
    yScale = 1,
    columnCount = 1,
    rowCount = 1,
    columnSpacing = 0,
    rowSpacing = 0,
  } = insert;
  const entities = withVertices(block.entities);
  const [rows, columns] = [timesOf(rowCount), timesOf(columnCount)];
  const hand: Affine = isFromBehind(insert) ? [-1, 0, 0, 1, 0, 0] : UNMOVED;
  const angle = (rotation * Math.PI) / 180;
  const lying = composed(hand, placed([position.x, position.y], angle));
  const base: Affine = [1, 0, 0, 1, -(block.position?.x ?? 0), -(block.position?.y ?? 0)];
  into.pieces += columns * rows;
  if (into.pieces > MAX_PIECES) throw new TooMany();
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const cell = composed(lying, placed([column * columnSpacing, row * rowSpacing], 0, xScale, yScale));
      const inner = composed(map, composed(cell, base));
      for (const entity of entities)
        gather(into, entity, inner, entity.layer === '0' || !entity.layer ? layer : entity.layer, depth + 1);
    }
  }
}
