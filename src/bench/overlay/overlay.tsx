import { useMemo, type RefObject } from 'react';
import { usePalette } from '@/ui/palette';
import { wordForSnap } from '@/ui/words';
import { AIM_RADIUS } from '../aim';
import { layingOf } from '../laying';
import { patchOf } from '../patch';
import { toolOf, type ActiveTool, type ToolName } from '../tools';
import { useDesk, useFitted, useJob, useSession } from '../use-session';
import { toScreen, type Viewport } from '../viewport';
import { AccuracyMap } from './accuracy-map';
import { AimCross, Beacon, PatchRim } from './aim-mark';
import { Dimension } from './dimension';
import type { DrawnProps } from './drawn-props';
import { DimensionMarks } from './dimension-marks';
import { Drawing } from './drawing';
import { FrameCover } from './frame-cover';
import { EvidenceMarks } from './evidence-marks';
import { DatumMark, GuideMarks } from './marks';
import { OpeningMarks } from './opening-marks';
import { RegionMarks } from './region-marks';
import { ReferenceInk } from './reference-ink';
import { FreedomMarks } from './freedom-marks';
import { GridMarks } from './grid-marks';
import { ChosenMarks, RelationMarks } from './relation-marks';
import { Selection, benchTransform } from './selection';
import { ToolPreview } from './tool-preview';

/** Tools with which the evidence itself is worked on. */
const FITTING: readonly ToolName[] = ['evidence', 'points', 'datum'];

/** Everything that is drawn over the picture, in SVG. `drawing` is moved by the animation frame, not by React. */
export function Overlay({ drawing }: { drawing: RefObject<SVGGElement | null> }) {
  const palette = usePalette();
  const { session } = useDesk();
  const fitted = useFitted();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const state = useSession((whole) => whole);
  const { viewport, tool, aim, beacon, accuracy, advice, suggested } = state;
  const context = session.findContext();
  const preview = useMemo(() => context && toolOf(tool).preview(tool.state, aim, context), [tool, aim, context]);
  const hidden = useMemo(() => (preview?.outlines ?? []).map((outline) => outline.id), [preview]);
  if (!fitted || !preview || viewport.width === 0) return null;
  const patch = patchOf(state);
  const seen = `M0 0H${viewport.width}V${viewport.height}H0Z`;
  const hole = patch ? `M${patch.middle[0] - AIM_RADIUS} ${patch.middle[1]}a${AIM_RADIUS} ${AIM_RADIUS} 0 1 0 ${2 * AIM_RADIUS} 0a${AIM_RADIUS} ${AIM_RADIUS} 0 1 0 ${-2 * AIM_RADIUS} 0Z` : '';
  const drawn: DrawnProps = { job, derived, fitted, viewport, palette };
  const cutting = tool.name === 'frame';
  const fitting = FITTING.includes(tool.name);
  const again = tool.name === 'evidence' ? tool.state.again : undefined;
  const { fromPlane } = layingOf(viewport, fitted.fit);
  const ink = <Drawing job={job} derived={derived} fitted={fitted} palette={palette} except={hidden} fromPlane={fromPlane} />;
  const evidence = <EvidenceMarks {...drawn} chosen={state.evidence} hidden={again} quiet={accuracy || !fitting} />;
  return (
    <svg width={viewport.width} height={viewport.height} data-laying={sheetOnBench(viewport)} data-sheet={`${fitted.sheet.width} ${fitted.sheet.height}`} style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
      <clipPath id="bench-clip"><path d={seen + hole} clipRule="evenodd" /></clipPath>
      <g clipPath="url(#bench-clip)">
        {accuracy && fitted.fit.scaled ? <AccuracyMap fitted={fitted} viewport={viewport} palette={palette} units={job.units} /> : null}
        {suggested.map((frame, i) => <path key={i} data-testid="suggested" d={`M${frame.map((place) => toScreen(viewport, place).join(' ')).join('L')}Z`} fill="none" stroke={palette.tide} strokeWidth={2} strokeDasharray="8 5" />)}
        {advice ? <Dimension palette={palette} look="advice" from={toScreen(viewport, advice.from)} to={toScreen(viewport, advice.to)} testID="advice" /> : null}
        {fitting ? null : evidence}
        {cutting ? null : <FrameCover fitted={fitted} viewport={viewport} palette={palette} />}
        {state.grid !== undefined && fitted.fit.scaled ? <GridMarks step={state.grid} fitted={fitted} viewport={viewport} palette={palette} /> : null}
        <ReferenceInk references={state.references} {...drawn} />
        {tool.name === 'region' ? <RegionMarks {...drawn} state={tool.state} /> : null}
        <GuideMarks {...drawn} />
        <g ref={drawing} id="bench-drawing" transform={benchTransform(viewport)}>{ink}</g>
        {fitting ? evidence : null}
        {job.dimensions.length > 0 ? <DimensionMarks {...drawn} units={job.units} /> : null}
        <ToolMarks {...drawn} tool={tool} />
        <DatumMark fitted={fitted} palette={palette} viewport={viewport} />
        <ToolPreview preview={preview} fitted={fitted} viewport={viewport} palette={palette} />
        {beacon ? <Beacon at={toScreen(viewport, fitted.fit.toSheet(beacon))} palette={palette} /> : null}
        {aim && !patch ? <AimCross at={toScreen(viewport, aim.sheet)} snap={aim.snap && wordForSnap(aim.snap)} palette={palette} size={22} /> : null}
      </g>
      {patch && aim ? (
        <PatchRim middle={patch.middle} palette={palette}>
          <g transform={`translate(${patch.offset[0]} ${patch.offset[1]})`}>
            {cutting ? null : <FrameCover fitted={fitted} viewport={patch.viewport} palette={palette} />}
            <ReferenceInk references={state.references} {...drawn} viewport={patch.viewport} />
            <GuideMarks {...drawn} viewport={patch.viewport} />
            <g transform={benchTransform(patch.viewport)}>{ink}</g>
            <EvidenceMarks {...drawn} viewport={patch.viewport} hidden={again} quiet />
            <ToolPreview preview={preview} fitted={fitted} viewport={patch.viewport} palette={palette} />
            <AimCross at={toScreen(patch.viewport, aim.sheet)} snap={aim.snap && wordForSnap(aim.snap)} palette={palette} size={AIM_RADIUS} />
          </g>
        </PatchRim>
      ) : null}
    </svg>
  );
}

/** What the tool in hand shows of what is drawn, over it. */
function ToolMarks({ tool, ...drawn }: DrawnProps & { readonly tool: ActiveTool }) {
  switch (tool.name) {
    case 'select':
      return <Selection {...drawn} state={tool.state} />;
    case 'opening':
      return <OpeningMarks {...drawn} chosen={tool.state.chosen} />;
    case 'dimension':
      return <ChosenMarks {...drawn} chosen={tool.state.on} />;
    case 'relate':
      return <><ChosenMarks {...drawn} chosen={tool.state.on} />{tool.state.free ? <FreedomMarks {...drawn} /> : <RelationMarks {...drawn} units={drawn.job.units} />}</>;
    default:
      return null;
  }
}

/** Where the sheet's zero and its first pixels across and down lie on the bench, for whoever reads the page: "x y x y x y". */
function sheetOnBench({ laying }: Viewport): string {
  return ([[0, 0], [1, 0], [0, 1]] as const).map((place) => laying?.toBench(place) ?? place).flat().join(' ');
}
