import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { done, refused, type Result } from '../basics';
import { composed, moved, UNMOVED, type Affine } from '../geometry';
import { isSound } from './drawing';
import { noCounts, type FilePath, type FileReading } from './file-reading';
import { MAX_PIECES } from './limits';
import { findShape, type Attributes } from './svg-shapes';
import { ZERO_KEPT } from './svg-writer';
import { readTransform } from './svg-transform';

/** Millimetres in a unit of SVG lengths; a CSS px is 1/96 in (CSS Values and Units, section 6.2). */
const MM: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  q: 0.25,
  in: 25.4,
  px: 25.4 / 96,
  '': 25.4 / 96,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
};

/** As the parser gives it with the order kept: one key is the element's name, `:@` its attributes. */
interface Node {
  readonly [name: string]: unknown;
  readonly ':@'?: Attributes;
}

const PARSER = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '',
  preserveOrder: true,
  parseAttributeValue: false,
  processEntities: true,
  trimValues: true,
});
/** Elements that only hold others. */
const HOLDERS = new Set(['g', 'a', 'switch', 'svg']);
/** What stands aside until it is called for, or draws nothing. */
const ASIDE = new Set([
  'defs',
  'symbol',
  'clippath',
  'mask',
  'pattern',
  'marker',
  'lineargradient',
  'radialgradient',
  'filter',
  'metadata',
  'title',
  'desc',
  'style',
  '#text',
  '?xml',
  'sodipodi:namedview',
]);
const DEEPEST = 40;

interface Gathering {
  readonly named: ReadonlyMap<string, Node>;
  readonly paths: FilePath[];
  readonly ignored: Record<string, number>;
  pieces: number;
}

const nameOf = (node: Node) => Object.keys(node).find((key) => key !== ':@') ?? '';
const childrenOf = (node: Node) => (Array.isArray(node[nameOf(node)]) ? (node[nameOf(node)] as Node[]) : []);

/**
 * Reads an SVG with general-purpose XML and path parsers: all basic shapes and paths, groups, transforms, `use`. mm out, y up. Scripts, pictures,
 * text and links are never followed; they are counted by kind. A layer is an outermost group.
 * Refused: what is no SVG, entities that multiply, more than a million pieces. Weak: style sheets and sizes in percent are not read.
 */
export function readSvg(text: string): Result<FileReading> {
  // Entities of its own may stand for ever longer text; nobody needs them for line work.
  if (/<!ENTITY/i.test(text) || XMLValidator.validate(text) !== true) return refused('svg-not-understood');
  const root = elementsIn(text)?.find((node) => nameOf(node) === 'svg');
  const frame = root && frameOf(root[':@'] ?? {});
  if (!root || !frame) return refused('svg-not-understood');
  const gathering: Gathering = { named: namedIn(root), paths: [], ignored: noCounts(), pieces: 0 };
  for (const child of childrenOf(root)) {
    const layer = layerOf(child);
    if (!gather(gathering, child, frame.map, layer, 0)) return refused('reference-too-large', { most: MAX_PIECES });
  }
  const { unitMm } = frame;
  const unit = Math.abs(unitMm - 1) < 1e-6 ? 'mm' : Math.abs(unitMm - 25.4) < 1e-5 ? 'inch' : undefined;
  const { ignored, paths } = gathering;
  return done({
    unit,
    unitMm,
    paths,
    ignored: Object.values(ignored).reduce((sum, count) => sum + count, 0),
    ignoredKinds: ignored,
  });
}

/** Undefined where elements lie in one another deeper than the parser goes. */
function elementsIn(text: string): readonly Node[] | undefined {
  try {
    return PARSER.parse(text) as Node[];
  } catch {
    return undefined;
  }
}

function layerOf(node: Node): string {
  const at = node[':@'] ?? {};
  const label = Object.entries(at).find(([name]) => name.endsWith(':label'))?.[1];
  return nameOf(node) === 'g' ? String(at['data-layer'] ?? label ?? at.id ?? '') : '';
}

/**
 * From user units, y down, to millimetres, y up: from the zero of a file that keeps one, else from the lower left corner of what is shown; undefined where it
 * has no size.
 */
function frameOf(at: Attributes): { readonly map: Affine; readonly unitMm: number } | undefined {
  const box = at.viewBox
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  const [width, height] = [lengthOf(at.width), lengthOf(at.height)];
  const [x, y, w, h] =
    box?.length === 4 && box[2]! > 0 && box[3]! > 0
      ? (box as [number, number, number, number])
      : [0, 0, width?.value ?? 0, height?.value ?? 0];
  if (!(h > 0) || !(w > 0)) return undefined;
  const unitMm = Math.min(
    ...[[width, w] as const, [height, h] as const].map(([said, user]) =>
      said ? (said.value * said.mm) / user : Infinity,
    ),
  );
  const mm = Number.isFinite(unitMm) ? unitMm : MM.px!;
  const [across, up] = ZERO_KEPT in at ? [0, 0] : [-x * mm, (y + h) * mm];
  return mm > 0 ? { map: [mm, 0, 0, -mm, across, up], unitMm: mm } : undefined;
}

/** A length with its unit; undefined for percent, and where nothing is said. */
function lengthOf(text: string | undefined): { readonly value: number; readonly mm: number } | undefined {
  const said = /^\s*([+-]?[\d.]+(?:e[+-]?\d+)?)\s*([a-z]*)\s*$/i.exec(text ?? '');
  const mm = said && MM[said[2]!.toLowerCase()];
  return said && mm ? { value: Number(said[1]), mm } : undefined;
}

function namedIn(node: Node, named = new Map<string, Node>()): ReadonlyMap<string, Node> {
  const id = node[':@']?.id;
  if (id) named.set(id, node);
  for (const child of childrenOf(node)) namedIn(child, named);
  return named;
}

const isHidden = (at: Attributes) =>
  at.display === 'none' ||
  at.visibility === 'hidden' ||
  /(^|;)\s*(display\s*:\s*none|visibility\s*:\s*hidden)/.test(at.style ?? '');

/** Adds what an element draws. False when there is too much of it. */
function gather(into: Gathering, node: Node, map: Affine, layer: string, depth: number): boolean {
  // Elements count too: groups that call for groups may be many without drawing anything.
  if (++into.pieces > MAX_PIECES) return false;
  const name = nameOf(node);
  const at = node[':@'] ?? {};
  if (ASIDE.has(name.toLowerCase()) || isHidden(at)) return true;
  const inner = at.transform ? composed(map, readTransform(at.transform) ?? UNMOVED) : map;
  const used = name === 'use' ? into.named.get((at.href ?? at['xlink:href'] ?? '').replace(/^#/, '')) : undefined;
  if (depth < DEEPEST && used) {
    const shifted = composed(inner, [
      1,
      0,
      0,
      1,
      Number.parseFloat(at.x ?? '0') || 0,
      Number.parseFloat(at.y ?? '0') || 0,
    ]);
    return nameOf(used) === 'symbol'
      ? childrenOf(used).every((child) => gather(into, child, shifted, layer, depth + 1))
      : gather(into, used, shifted, layer, depth + 1);
  }
  if (depth < DEEPEST && HOLDERS.has(name))
    return childrenOf(node).every((child) => gather(into, child, inner, layer, depth + 1));
  const shapes = findShape(name, at);
  if (!shapes) into.ignored[name] = (into.ignored[name] ?? 0) + 1;
  for (const { closed, pieces } of shapes ?? []) {
    into.pieces += pieces.length;
    const shown = pieces.map((piece) => moved(piece, inner));
    if (shown.every((piece) => isSound(piece))) into.paths.push({ layer, closed, pieces: shown });
    else into.ignored[name] = (into.ignored[name] ?? 0) + 1;
  }
  return into.pieces <= MAX_PIECES;
}
