import { isEnough, wayOf, type ActiveTool } from '@/bench/tools';
import type { FittedView } from '@/core/derive';
import type { Job } from '@/core/job';
import { hintForEvidence } from '@/features/calibrate/kinds';
import type { StepName } from './step';

/** One line that says what to do now. */
export function hintFor(step: StepName, tool: ActiveTool, fitted: FittedView | undefined, job: Job): string {
  if (!fitted) return 'Bring in a picture of the thing to begin.';
  if (fitted.view.lookOnly && step !== 'sources') return 'This picture is kept only to look at.';
  switch (step) {
    case 'sources':
      return sourcesHint(tool);
    case 'fit':
      return fitHint(tool, fitted);
    case 'trace':
      return traceHint(tool, job);
    case 'handover':
      return 'The file is read back before it leaves.';
  }
}

function sourcesHint(tool: ActiveTool): string {
  if (tool.name === 'level')
    return ['Point at one end of an edge that is level or upright.', 'Point at its other end.', 'Say how it runs.'][
      tool.state.points.length
    ]!;
  if (tool.name === 'brush')
    return tool.state.does === 'rub' ? 'Rub over what should go.' : 'Draw over where ink is missing.';
  if (tool.name !== 'frame') return 'Say what kind of picture it is: that decides how far it is trusted.';
  const { shape, points } = tool.state;
  if (shape === 'box')
    return ['Point at one corner of the frame.', 'Point at the corner across.', 'Nudge it, or say what it shows.'][
      points.length
    ]!;
  if (shape === 'turned')
    return [
      'Point at one end of a side of the frame.',
      'Point at the other end of that side.',
      'Point at the side across.',
      'Nudge it, or say what it shows.',
    ][points.length]!;
  return points.length < 3 ? 'Point around the part that is wanted.' : 'Go on around it, or say what it shows.';
}

function fitHint(tool: ActiveTool, { view, fit }: FittedView): string {
  const checks = view.evidence.some(({ role }) => role === 'check');
  const lengths = view.evidence.some(({ role }) => role === 'use');
  switch (tool.name) {
    case 'evidence':
      if (tool.state.again !== undefined)
        return isEnough(wayOf(tool.state), tool.state.points.length)
          ? 'Take the average, or nudge.'
          : 'Point at the same places again; the marks are hidden, so that they do not lead your hand.';
      return hintForEvidence(wayOf(tool.state), tool.state.role, tool.state.points.length);
    case 'points':
      if (tool.state.point) return 'Point at where it belongs, or nudge it.';
      return checks || view.evidence.length > 1
        ? 'Point at a mark to see its card; drag its points to correct them.'
        : fallback(checks, lengths, fit.scaled);
    case 'match':
      if (!tool.state.target) return 'Choose what it is laid on.';
      return tool.state.looking === 'target'
        ? 'Point at the same place here.'
        : 'Point at a place in the picture that is there too.';
    case 'datum':
      return ['Point at the zero.', 'Point along what is level.'][tool.state.points.length] ?? '';
    default:
      return fallback(checks, lengths, fit.scaled);
  }
}

function fallback(checks: boolean, lengths: boolean, scaled: boolean): string {
  if (!lengths) return 'Choose Length and point at something you know.';
  if (!scaled) return 'Nothing here says a size yet. Point at something whose length you know.';
  return checks ? 'Scaled and checked. Go on to Trace.' : 'Check the scale on a second size before you trust it.';
}

function traceHint(tool: ActiveTool, job: Job): string {
  switch (tool.name) {
    case 'shape':
      return 'Point at what the card asks for; what makes it the shape it is stays true.';
    case 'cut':
      return 'Point at the outline that is cut.';
    case 'stand':
      return 'Point at what the card asks for.';
    case 'region':
      return 'Point at a region to name it.';
    case 'dimension':
      return 'Point at what a size should be read between.';
    case 'opening':
      return 'Point at a wall, or at a door or window.';
    case 'relate':
      return tool.state.on.length === 0
        ? 'Point at lines, arcs, circles or corners, then say what is true of them.'
        : 'Point at more, or say what is true of what is chosen.';
    case 'chain': {
      const { nodes, kind, through } = tool.state;
      if (nodes.length === 0) return 'Point at where the outline begins, or at an open end to carry it on.';
      if (kind === 'arc')
        return through ? 'Point at where the arc ends.' : 'Point at a place on the arc, then at its end.';
      return kind === 'tangent'
        ? 'Point at where the tangent arc ends.'
        : kind === 'curve'
          ? 'Point along the curve.'
          : 'Point at the next corner, or on the first point to close.';
    }
    case 'circle':
      return tool.state.mode === 'found' ? 'Point inside a hole or a disc.' : 'Point at the circle.';
    case 'guide':
      return 'Guides are snapped to and never leave in a file.';
    case 'distance':
      return 'Point at two places.';
    case 'angle':
      return 'Point at the corner, then along each side.';
    case 'select':
      if (tool.state.moving)
        return tool.state.grabbed ? 'Point at where the handle goes.' : 'Point at where the point goes.';
      return job.outlines.length === 0
        ? 'Choose what to draw, then point along the edge.'
        : 'Point at an outline, then at its points.';
    default:
      return '';
  }
}
