import { circleThrough, figuresOf, type Fit } from '@/core/calibrate';
import { toPiece, type FittedView } from '@/core/derive';
import { mix, type Vec } from '@/core/geometry';
import type { Evidence, Job } from '@/core/job';
import { formatAngle, formatLength, type Units } from '@/core/units';
import type { Palette } from '@/ui/palette';
import { toScreen, type Viewport } from '../viewport';
import { Dimension, Label, slipSize } from './dimension';
import { apart } from './slips';

interface EvidenceMarksProps {
  readonly job: Job;
  readonly fitted: FittedView;
  readonly viewport: Viewport;
  readonly palette: Palette;
  /** The piece that is pointed out. */
  readonly chosen?: string | undefined;
  /** A piece that is pointed at again: its marks would lead the hand. */
  readonly hidden?: string | undefined;
  /** Something else is being done: the marks stand back, and only the chosen one says its figure. */
  readonly quiet?: boolean | undefined;
}

/** All that is known about a view, as a draughtsman marks it: the lines first, and the figures that were said on top. */
export function EvidenceMarks({ job, fitted, viewport, palette, chosen, hidden, quiet = false }: EvidenceMarksProps) {
  const places = new Map(fitted.view.points.map((point) => [point.id, point.at]));
  const marks = fitted.view.evidence.filter(({ id, role }) => role !== 'off' && id !== hidden).map((evidence): Mark => {
    const suspect = fitted.fit.suspects.includes(evidence.id);
    return {
      evidence, bold: chosen === evidence.id, check: evidence.role === 'check',
      color: suspect ? palette.berry : evidence.role === 'check' ? palette.plum : palette.tide,
      groups: evidence.groups.map((group) => group.map((id) => toScreen(viewport, places.get(id)!))),
      ring: evidence.kind === 'circle' ? ringOf(evidence, places, fitted.fit, viewport) : undefined,
      label: `${suspect ? '? ' : ''}${labelOf(evidence, job.units)}`,
    };
  });
  const labelled = marks.filter(({ evidence, label, bold }) => label !== '' && (bold || (!quiet && Object.keys(evidence.said).length > 0)));
  const slips = apart(labelled.map(({ evidence, groups, label }) => ({ at: labelPlace(evidence, groups), size: slipSize(label) })));
  return (
    <g opacity={quiet ? 0.55 : 1}>
      {marks.map((mark) => <MarkLines key={mark.evidence.id} mark={mark} palette={palette} />)}
      {labelled.map(({ evidence, label, color }, i) => <Label key={evidence.id} at={slips[i]!} text={label} color={color} palette={palette} />)}
    </g>
  );
}

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

function MarkLines({ mark: { evidence, bold, check, color, groups, ring }, palette }: { mark: Mark; palette: Palette }) {
  const testID = `evidence-${evidence.id}`;
  if (evidence.kind === 'length') {
    const [from, to] = groups[0]!;
    return <Dimension palette={palette} look={check ? 'check' : 'evidence'} guess={evidence.guess} testID={testID} from={from!} to={to!} color={color} bold={bold} />;
  }
  const paths = ring !== undefined ? [ring] : groups.map((group) => `M${group.map(([x, y]) => `${x} ${y}`).join('L')}`);
  return (
    <g data-testid={testID} fill="none">
      {paths.map((d, i) => <path key={i} d={d} stroke={palette.halo} strokeWidth={bold ? 6 : 4.5} strokeOpacity={0.8} />)}
      {paths.map((d, i) => <path key={i} d={d} stroke={color} strokeWidth={bold ? 3 : 1.6} strokeDasharray={check ? '2 5' : undefined} />)}
      {groups.flat().map(([x, y], i) => <path key={i} d={`M${x - 4} ${y}h8M${x} ${y - 4}v8`} stroke={color} strokeWidth={1.6} />)}
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
  const said = figuresOf(toPiece(evidence)).filter((figure) => figure.said !== undefined);
  const sizes = said.map(({ said: value, unit }) => (unit === 'degrees' ? formatAngle((value! * Math.PI) / 180) : formatLength(value!, units)));
  switch (evidence.kind) {
    case 'length': case 'rectangle': return sizes.length > 0 ? about + sizes.join(' × ') : 'rectangle';
    case 'circle': return sizes.length > 0 ? `${about}⌀ ${sizes[0]}` : 'round';
    case 'angle': case 'level': return evidence.kind === 'level' && evidence.said.angle?.value === 0 ? 'level' : sizes[0] ?? '';
    case 'known-point': return sizes.join(', ');
    default: return evidence.kind;
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
