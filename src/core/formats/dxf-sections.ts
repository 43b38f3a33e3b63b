/** What of a DXF is looked at: the unit of its drawing, the layers that are not shown, and the text of the sections in which things are drawn. */
export interface DxfSections {
  /** $INSUNITS; 0 where it is not said. */
  readonly units: number;
  readonly hidden: readonly string[];
  /** A DXF of blocks and entities alone. */
  readonly drawn: string;
}

/** Group codes there are (DXF reference, "Group code value types"). */
const [LOWEST, HIGHEST] = [-5, 1071];
const DRAWN = ['BLOCKS', 'ENTITIES'];
const FROZEN = 1;

interface Group {
  readonly code: number;
  readonly value: string;
  /** Where its code begins in the text, and where what follows it does. */
  readonly from: number;
  readonly to: number;
}

/**
 * Reads the frame of a DXF by itself, since the parser goes round for ever in tables that are cut short. Undefined where the file is no row of codes and values (a line is missing or one too many), or ends before
 * its end is said.
 */
export function readSections(text: string): DxfSections | undefined {
  const hidden = new Set<string>();
  const drawn: string[] = [];
  let units = 0;
  let [section, variable, from] = ['', '', 0];
  let layer: { name: string; flags: number; color: number } | undefined;
  const endLayer = () => {
    if (layer && ((layer.flags & FROZEN) !== 0 || layer.color < 0)) hidden.add(layer.name);
    layer = undefined;
  };
  for (
    let group = groupAt(text, 0), before = '';
    group;
    before = group.code === 0 ? group.value : '', group = groupAt(text, group.to)
  ) {
    const { code, value } = group;
    if (code === 0 && value === 'EOF') return { units, hidden: [...hidden], drawn: `${drawn.join('')}0\nEOF\n` };
    if (code === 0 && value === 'SECTION') from = group.from;
    if (code === 2 && before === 'SECTION') section = value;
    if (code === 0 && value === 'ENDSEC') {
      if (DRAWN.includes(section)) drawn.push(text.slice(from, group.to));
      section = '';
    }
    if (section === 'HEADER' && code === 9) variable = value;
    if (section === 'HEADER' && code === 70 && variable === '$INSUNITS') units = Number(value) || 0;
    if (section !== 'TABLES') continue;
    if (code === 0) endLayer();
    if (code === 0 && value === 'LAYER') layer = { name: '', flags: 0, color: 0 };
    else if (layer && code === 2) layer.name = value;
    else if (layer && code === 70) layer.flags = Number(value) || 0;
    else if (layer && code === 62) layer.color = Number(value) || 0;
  }
  return undefined;
}

/** The code and value at a place of the text; undefined at its end, or where no code stands. */
function groupAt(text: string, from: number): Group | undefined {
  const middle = text.indexOf('\n', from);
  if (middle < 0) return undefined;
  const end = text.indexOf('\n', middle + 1);
  const written = text.slice(from, middle).trim();
  const code = Number(written);
  if (written === '' || !Number.isInteger(code) || code < LOWEST || code > HIGHEST) return undefined;
  return {
    code,
    value: text.slice(middle + 1, end < 0 ? text.length : end).trim(),
    from,
    to: end < 0 ? text.length : end + 1,
  };
}
