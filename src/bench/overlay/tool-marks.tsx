import { toolOf, type ActiveTool, type Mark } from '../tools';
import type { DrawnProps } from './drawn-props';
import { FreedomMarks } from './freedom-marks';
import { OpeningMarks } from './opening-marks';
import { RegionMarks } from './region-marks';
import { ChosenMarks } from './relation-marks';
import { Selection } from './selection';
import { SitedMarks } from './sited-marks';

/** What the tool in hand shows of what is there. */
export const marksOf = (tool: ActiveTool): readonly Mark[] => toolOf(tool).marks?.(tool.state) ?? [];

export function findMark<K extends Mark['kind']>(
  marks: readonly Mark[],
  kind: K,
): Extract<Mark, { kind: K }> | undefined {
  return marks.find((mark): mark is Extract<Mark, { kind: K }> => mark.kind === kind);
}

interface ToolMarksProps extends DrawnProps {
  readonly marks: readonly Mark[];
}

/** The regions that the tool in hand shows, under what is drawn. */
export function ToolRegions({ marks, ...drawn }: ToolMarksProps) {
  const regions = findMark(marks, 'regions');
  return regions ? <RegionMarks {...drawn} at={regions.at} /> : null;
}

/** What the tool in hand shows of what is drawn, over it. */
export function ToolMarks({ marks, ...drawn }: ToolMarksProps) {
  return marks.map((mark) => <ToolMark key={mark.kind} mark={mark} {...drawn} />);
}

function ToolMark({ mark, ...drawn }: DrawnProps & { readonly mark: Mark }) {
  switch (mark.kind) {
    case 'chosen-outlines':
      return <Selection {...drawn} chosen={mark} />;
    case 'openings':
      return <OpeningMarks {...drawn} chosen={mark.chosen} />;
    case 'chosen-ends':
      return <ChosenMarks {...drawn} chosen={mark.on} />;
    case 'sited':
      return <SitedMarks {...drawn} />;
    case 'freedoms':
      return <FreedomMarks {...drawn} />;
    default:
      return null;
  }
}
