import { useMemo, type ReactNode, type RefObject } from 'react';
import type { ViewRegion } from '@/core/derive';
import type { Vec } from '@/core/geometry';
import { usePalette } from '@/ui/palette';
import { wordForSnap } from '@/ui/words';
import { adviceFor } from '../advice';
import { AIM_RADIUS, type Aim } from '../aim';
import { layingOf, layingUnder } from '../laying';
import { patchOf } from '../patch';
import type { SessionState } from '../session-state';
import { toolOf, type Preview } from '../tools';
import { useRegions } from '../regions';
import { useDesk, useFitted, useJob, useReferencesAtHand, useSession } from '../use-session';
import { toScreen, type Viewport } from '../viewport';
import { AccuracyMap } from './accuracy-map';
import { CurveMarks } from './curve-marks';
import { AimCross, Beacon, PatchRim } from './aim-mark';
import { DimensionLine } from './dimension';
import type { DrawnProps } from './drawn-props';
import { DimensionMarks } from './dimension-marks';
import { DrawingInk } from './drawing';
import { ByEyeInk } from './by-eye-ink';
import { OthersInk } from './others-ink';
import { FrameCover } from './frame-cover';
import { EvidenceMarks, type EvidenceLook } from './evidence-marks';
import { Labels, OpenedLabel } from './labels';
import { labelDrawing } from './labelling';
import { DatumMark, GuideMarks } from './marks';
import { ReferenceInk } from './reference-ink';
import { GridMarks } from './grid-marks';
import { benchTransform } from './selection';
import { findMark, marksOf, ToolMarks, ToolRegions } from './tool-marks';
import { SharedMarks } from './shared-marks';
import { ToolPreview } from './tool-preview';

/** Everything that is drawn over the picture, in SVG. `drawing` is moved by the animation frame, not by React. */
export function Overlay({ drawing }: { drawing: RefObject<SVGGElement | null> }) {
  const palette = usePalette();
  const { session } = useDesk();
  const fitted = useFitted();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const state = useSession((whole) => whole);
  const { viewport, tool, aim } = state;
  const context = session.findContext();
  const preview = useMemo(() => context && toolOf(tool).preview(tool.state, aim, context), [tool, aim, context]);
  const hidden = useMemo(() => (preview?.outlines ?? []).map((outline) => outline.id), [preview]);
  if (!fitted || !preview || viewport.width === 0) return null;
  return (
    <Drawn
      drawn={{ job, derived, fitted, viewport, palette }}
      state={state}
      preview={preview}
      hidden={hidden}
      drawing={drawing}
    />
  );
}

interface DrawnOverlayProps {
  readonly drawn: DrawnProps;
  readonly state: SessionState;
  readonly preview: Preview;
  /** Outlines that the preview stands in for. */
  readonly hidden: readonly string[];
  readonly drawing: RefObject<SVGGElement | null>;
}

function Drawn({ drawn, state, preview, hidden, drawing }: DrawnOverlayProps) {
  const { job, derived, fitted, viewport, palette } = drawn;
  const { aim } = state;
  const labelled = useLabels(drawn, state);
  const patch = patchOf(state);
  const others = state.others ? <OthersInk {...drawn} /> : null;
  const ink = (
    <DrawingInk
      job={job}
      derived={derived}
      fitted={fitted}
      palette={palette}
      except={hidden}
      fromPlane={layingOf(viewport, fitted.fit).fromPlane}
    />
  );
  const scene: SceneProps = { ...drawn, state, preview, ink, others, labelled };
  return (
    <svg
      width={viewport.width}
      height={viewport.height}
      data-laying={sheetOnBench(viewport)}
      data-sheet={`${fitted.sheet.width} ${fitted.sheet.height}`}
      style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}>
      <clipPath id="bench-clip">
        <path
          d={`M0 0H${viewport.width}V${viewport.height}H0Z${patch ? roundHole(patch.middle) : ''}`}
          clipRule="evenodd"
        />
      </clipPath>
      <g clipPath="url(#bench-clip)">
        <Scene {...scene} drawing={drawing} hasPatch={patch !== undefined} />
      </g>
      {patch && aim ? (
        <PatchRim middle={patch.middle} palette={palette}>
          <g transform={`translate(${patch.offset[0]} ${patch.offset[1]})`}>
            <PatchScene {...scene} aim={aim} viewport={patch.viewport} />
          </g>
        </PatchRim>
      ) : null}
      <OpenedLabel
        {...labelled}
        palette={palette}
        viewport={viewport}
        pointer={aim && toScreen(viewport, aim.sheet)}
        clear={patch ? AIM_RADIUS + 4 : 14}
      />
    </svg>
  );
}

interface SceneProps extends DrawnProps {
  readonly state: SessionState;
  readonly preview: Preview;
  /** The outlines themselves. */
  readonly ink: ReactNode;
  /** Those of other views of the plane, if they are shown. */
  readonly others: ReactNode;
  readonly labelled: ReturnType<typeof labelDrawing>;
}

/** How evidence is shown: in full while it is worked on, and not what is pointed at again. */
function evidenceLook({
  tool,
  accuracy,
  evidence,
}: Pick<SessionState, 'tool' | 'accuracy' | 'evidence'>): EvidenceLook {
  const full = findMark(marksOf(tool), 'evidence');
  return {
    chosen: evidence,
    hidden: full?.except,
    quiet: accuracy || !full,
  };
}

const NO_REGIONS: readonly ViewRegion[] = [];

/** The words and figures of the drawing with their places, found anew only when something that they stand on changes. */
function useLabels(drawn: DrawnProps, { tool, accuracy, evidence }: SessionState) {
  const { job, derived, fitted, viewport, palette } = drawn;
  const { value: regions = NO_REGIONS } = useRegions(
    fitted.view.plane,
    findMark(marksOf(tool), 'regions') !== undefined,
  );
  return useMemo(
    () =>
      labelDrawing({ job, derived, fitted, viewport, palette }, evidenceLook({ tool, accuracy, evidence }), {
        tool,
        accuracy,
        regions,
      }),
    [job, derived, fitted, viewport, palette, tool, accuracy, evidence, regions],
  );
}

/** All marks of the bench, from what lies lowest to the aim. */
function Scene({
  state,
  preview,
  ink,
  others,
  labelled,
  drawing,
  hasPatch,
  ...drawn
}: SceneProps & { drawing: RefObject<SVGGElement | null>; hasPatch: boolean }) {
  const { fitted, viewport, palette, job } = drawn;
  const references = useReferencesAtHand();
  const { aim, beacon, accuracy } = state;
  const marks = marksOf(state.tool);
  const fitting = findMark(marks, 'evidence') !== undefined;
  const evidence = <EvidenceMarks {...drawn} look={evidenceLook(state)} />;
  return (
    <>
      {accuracy && fitted.fit.scaled ? <AccuracyMap {...drawn} /> : null}
      <Advice state={state} {...drawn} />
      {fitting ? null : evidence}
      {findMark(marks, 'whole-sheet') ? null : <FrameCover fitted={fitted} viewport={viewport} palette={palette} />}
      {state.grid !== undefined && fitted.fit.scaled ? (
        <GridMarks step={state.grid} fitted={fitted} viewport={viewport} palette={palette} />
      ) : null}
      <ReferenceInk references={references} {...drawn} />
      <ToolRegions {...drawn} marks={marks} />
      <GuideMarks {...drawn} />
      <SharedMarks
        {...drawn}
        full={findMark(marks, 'shared') !== undefined}
        chosen={findMark(marks, 'shared')?.chosen}
      />
      <g ref={drawing} id="bench-drawing" transform={benchTransform(viewport)}>
        {others}
        {ink}
        {job.byEye.length > 0 ? <ByEyeInk {...drawn} /> : null}
      </g>
      <CurveMarks {...drawn} full={findMark(marks, 'curves') !== undefined} />
      {fitting ? evidence : null}
      {job.dimensions.length > 0 ? <DimensionMarks {...drawn} /> : null}
      <ToolMarks {...drawn} marks={marks} />
      <DatumMark fitted={fitted} palette={palette} viewport={viewport} />
      <ToolPreview preview={preview} fitted={fitted} viewport={viewport} palette={palette} />
      <Labels {...labelled} palette={palette} />
      {beacon ? <Beacon at={toScreen(viewport, fitted.fit.toSheet(beacon))} palette={palette} /> : null}
      {aim && !hasPatch ? (
        <AimCross
          at={toScreen(viewport, aim.sheet)}
          snap={aim.snap && wordForSnap(aim.snap)}
          palette={palette}
          size={22}
        />
      ) : null}
    </>
  );
}

/** What was found and what would help, dotted: frames around drawings, the next measurement. */
function Advice({ state: { suggested, advises }, fitted, viewport, palette }: DrawnProps & { state: SessionState }) {
  const advice = advises ? adviceFor(fitted) : undefined;
  return (
    <>
      {suggested.map((frame, i) => (
        <path
          key={i}
          data-testid="suggested"
          d={`M${frame.map((place) => toScreen(viewport, place).join(' ')).join('L')}Z`}
          fill="none"
          stroke={palette.tide}
          strokeWidth={2}
          strokeDasharray="8 5"
        />
      ))}
      {advice ? (
        <DimensionLine
          palette={palette}
          look="advice"
          from={toScreen(viewport, advice.from)}
          to={toScreen(viewport, advice.to)}
          testID="advice"
        />
      ) : null}
    </>
  );
}

/** What the magnified patch shows; `viewport` is the patch's own. */
function PatchScene({ state, preview, ink, aim, ...drawn }: Omit<SceneProps, 'labelled' | 'others'> & { aim: Aim }) {
  const { fitted, viewport, palette } = drawn;
  const references = useReferencesAtHand();
  return (
    <>
      {findMark(marksOf(state.tool), 'whole-sheet') ? null : (
        <FrameCover fitted={fitted} viewport={viewport} palette={palette} />
      )}
      <ReferenceInk references={references} {...drawn} />
      <GuideMarks {...drawn} />
      <g transform={benchTransform(viewport)}>{ink}</g>
      <EvidenceMarks {...drawn} look={{ ...evidenceLook(state), chosen: undefined, quiet: true }} />
      <ToolPreview preview={preview} fitted={fitted} viewport={viewport} palette={palette} />
      <AimCross
        at={toScreen(viewport, aim.sheet)}
        snap={aim.snap && wordForSnap(aim.snap)}
        palette={palette}
        size={AIM_RADIUS}
      />
    </>
  );
}

const roundHole = ([x, y]: Vec): string =>
  `M${x - AIM_RADIUS} ${y}a${AIM_RADIUS} ${AIM_RADIUS} 0 1 0 ${2 * AIM_RADIUS} 0a${AIM_RADIUS} ${AIM_RADIUS} 0 1 0 ${-2 * AIM_RADIUS} 0Z`;

/** Where the sheet's zero and its first pixels across and down lie on the bench, for whoever reads the page: "x y x y x y". */
function sheetOnBench(viewport: Viewport): string {
  const laying = layingUnder(viewport);
  return (
    [
      [0, 0],
      [1, 0],
      [0, 1],
    ] as const
  )
    .map((place) => laying?.toBench(place) ?? place)
    .flat()
    .join(' ');
}
