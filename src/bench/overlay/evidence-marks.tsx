import { circleThrough, listFigures, type Fit } from '@/core/calibrate';
import { toPiece } from '@/core/derive';
import { mix, type Vec } from '@/core/geometry';
import type { Evidence } from '@/core/job';
import { formatAngle, formatLength, type Units } from '@/core/units';
import type { Palette } from '@/ui/palette';
import { toScreen, type Viewport } from '../viewport';
import { DimensionLine } from './dimension';
import type { DrawnProps } from './drawn-props';
import { labelAt, type Labelling } from './labels';
import { placesAlong, placesAround } from './place-labels';

/** How evidence is shown. */
export interface EvidenceLook {
  /** The piece that is pointed out. */
  readonly chosen?: string | undefined;
  /** A piece that is pointed at again: its marks would lead the hand. */
  readonly hidden?: string | undefined;
  /** Something else is being done: the marks stand back, and only the chosen one says its figure. */
  readonly quiet?: boolean | undefined;
}

function listMarks({ job, fitted, viewport, palette }: DrawnProps, { chosen, hidden }: EvidenceLook): readonly Mark[] {
  const places = new Map(fitted.view.points.map((point) => [point.id, point.at]));
  return fitted.view.evidence
    .filter(({ id, role }) => role !== 'off' && id !== hidden)
    .map((evidence): Mark => {
      const suspect = fitted.fit.suspects.includes(evidence.id);
      return {
        evidence,
        bold: chosen === evidence.id,
        check: evidence.role === 'check',
        color: suspect ? palette.berry : evidence.role === 'check' ? palette.plum : palette.tide,
        groups: evidence.groups.map((group) => group.map((id) => toScreen(viewport, places.get(id)!))),
        ring: evidence.kind === 'circle' ? ringOf(evidence, places, fitted.fit, viewport) : undefined,
        label: `${suspect ? '? ' : ''}${labelOf(evidence, job.units)}`,
      };
    });
}

/** All that is known about a view, as a draughtsman marks it. */
export function EvidenceMarks({ look, ...drawn }: DrawnProps & { readonly look: EvidenceLook }) {
  return (
    <g opacity={look.quiet ? 0.55 : 1}>
      {listMarks(drawn, look).map((mark) => (
        <MarkLines key={mark.evidence.id} mark={mark} palette={drawn.palette} />
      ))}
    </g>
  );
}

/** The figures that were said, the chosen piece's first; no other label hides the lines of lengths. */
export function evidenceLabels(drawn: DrawnProps, look: EvidenceLook): Labelling {
  const marks = listMarks(drawn, look);
  const labelled = marks.filter(
    ({ evidence, label, bold }) => label !== '' && (bold || (!look.quiet && Object.keys(evidence.said).length > 0)),
  );
  const lengths = marks.filter(({ evidence }) => evidence.kind === 'length');
  return {
    labels: [...labelled]
      .sort((a, b) => Number(b.bold) - Number(a.bold))
      .map(({ evidence, groups, label, color }) =>
        labelAt(placesFor(evidence, groups, drawn.viewport), { key: evidence.id, text: label, color }),
      ),
    lines: lengths.map(({ evidence: { id }, groups: [ends] }) => ({ of: id, from: ends![0]!, to: ends![1]! })),
  };
}

const placesFor =
  (evidence: Evidence, groups: Mark['groups'], { width, height }: Viewport) =>
  (size: Vec) =>
    evidence.kind === 'length'
      ? placesAlong(groups[0]![0]!, groups[0]![1]!, size, [width, height])
      : placesAround(labelPlace(evidence, groups), size);

interface Mark {
  readonly evidence: Evidence;
  readonly bold: boolean;
  readonly check: boolean;
  readonly color: string;
  /** Screen places, group by group. */
  readonly groups: readonly (readonly Vec[])[];
  readonly ring: string | undefined;
  readonly label: string;
}

function MarkLines({
  mark: { evidence, bold, check, color, groups, ring },
  palette,
}: {
  mark: Mark;
  palette: Palette;
}) {
  const testID = `evidence-${evidence.id}`;
  if (evidence.kind === 'length') {
    const [from, to] = groups[0]!;
    return (
      <DimensionLine
        palette={palette}
        look={check ? 'check' : 'evidence'}
        guess={evidence.guess}
        testID={testID}
        from={from!}
        to={to!}
        color={color}
        bold={bold}
      />
    );
  }
  const paths = ring !== undefined ? [ring] : groups.map((group) => `M${group.map(([x, y]) => `${x} ${y}`).join('L')}`);
  return (
    <g data-testid={testID} fill="none">
      {paths.map((d, i) => (
        <path key={i} d={d} stroke={palette.halo} strokeWidth={bold ? 6 : 4.5} strokeOpacity={0.8} />
      ))}
      {paths.map((d, i) => (
        <path key={i} d={d} stroke={color} strokeWidth={bold ? 3 : 1.6} strokeDasharray={check ? '2 5' : undefined} />
      ))}
      {groups.flat().map(([x, y], i) => (
        <path key={i} d={`M${x - 4} ${y}h8M${x} ${y - 4}v8`} stroke={color} strokeWidth={1.6} />
      ))}
    </g>
  );
}

const STEPS = 48;

/** The circle that the fit draws through the rim points, back on the picture: an ellipse where the picture is slanted. */
function ringOf(evidence: Evidence, places: ReadonlyMap<string, Vec>, fit: Fit, viewport: Viewport): string {
  const rim = evidence.groups[0]!.map((id) => fit.toPlane(places.get(id)!));
  const { centre, radius } = circleThrough(rim);
  const ring = Array.from({ length: STEPS }, (_, i): Vec => {
    const turn = (2 * Math.PI * i) / STEPS;
    return toScreen(viewport, fit.toSheet([centre[0] + radius * Math.cos(turn), centre[1] + radius * Math.sin(turn)]));
  });
  return ring.every((place) => place.every(Number.isFinite)) ? `M${ring.map(([x, y]) => `${x} ${y}`).join('L')}Z` : '';
}

/** What is said of a piece, short enough for a slip of paper on the picture. */
function labelOf(evidence: Evidence, units: Units): string {
  const about = evidence.guess ? 'about ' : '';
  const said = listFigures(toPiece(evidence)).filter((figure) => figure.said !== undefined);
  const sizes = said.map(({ said: value, unit }) =>
    unit === 'degrees' ? formatAngle((value! * Math.PI) / 180) : formatLength(value!, units),
  );
  switch (evidence.kind) {
    case 'length':
    case 'rectangle':
      return sizes.length > 0 ? about + sizes.join(' × ') : 'rectangle';
    case 'circle':
      return sizes.length > 0 ? `${about}⌀ ${sizes[0]}` : 'round';
    case 'angle':
    case 'level':
      return evidence.kind === 'level' && evidence.said.angle?.value === 0 ? 'level' : (sizes[0] ?? '');
    case 'known-point':
      return sizes.join(', ');
    default:
      return evidence.kind;
  }
}

function labelPlace({ kind }: Evidence, groups: readonly (readonly Vec[])[]): Vec {
  if (kind === 'known-point') return [groups[0]![0]![0], groups[0]![0]![1] - 20];
  if (kind === 'circle' || kind === 'rectangle') {
    const all = groups.flat();
    // Below it, so that what is seen inside stays seen.
    return [all.reduce((sum, p) => sum + p[0], 0) / all.length, Math.max(...all.map((p) => p[1])) + 20];
  }
  // Off the middle, where a length on the same line has its figure.
  return mix(groups[0]![0]!, groups[0]!.at(-1)!, kind === 'straight' || kind === 'level' ? 0.22 : 0.5);
}
