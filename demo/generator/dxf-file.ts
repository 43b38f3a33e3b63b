import type { Point } from './profile';

export interface DxfLine {
  readonly layer: string;
  readonly closed: boolean;
  /** Metres. */
  readonly points: readonly Point[];
}

/** A survey as DXF in metres: polylines and circles on layers (DXF reference, sections HEADER and ENTITIES). */
export function encodeDxf(
  lines: readonly DxfLine[],
  circles: readonly { readonly layer: string; readonly centre: Point; readonly radius: number }[],
): string {
  const pair = (code: number, value: string | number) => `${code}\n${value}\n`;
  const polylines = lines.map(
    ({ layer, closed, points }) =>
      pair(0, 'LWPOLYLINE') +
      pair(100, 'AcDbEntity') +
      pair(8, layer) +
      pair(100, 'AcDbPolyline') +
      pair(90, points.length) +
      pair(70, closed ? 1 : 0) +
      points.map(([x, y]) => pair(10, x.toFixed(3)) + pair(20, y.toFixed(3))).join(''),
  );
  const rounds = circles.map(
    ({ layer, centre: [x, y], radius }) =>
      pair(0, 'CIRCLE') +
      pair(100, 'AcDbEntity') +
      pair(8, layer) +
      pair(100, 'AcDbCircle') +
      pair(10, x.toFixed(3)) +
      pair(20, y.toFixed(3)) +
      pair(30, 0) +
      pair(40, radius.toFixed(3)),
  );
  return `${pair(0, 'SECTION')}${pair(2, 'HEADER')}${pair(9, '$ACADVER')}${pair(1, 'AC1015')}${pair(9, '$INSUNITS')}${pair(70, 6)}${pair(0, 'ENDSEC')}${pair(0, 'SECTION')}${pair(2, 'ENTITIES')}${polylines.join('')}${rounds.join('')}${pair(0, 'ENDSEC')}${pair(0, 'EOF')}`;
}
