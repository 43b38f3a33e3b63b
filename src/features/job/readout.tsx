import { useMemo } from 'react';
import { View } from 'react-native';
import { useDesk, useFitted, useJob, useSession } from '@/bench/use-session';
import { toolOf } from '@/bench/tools';
import { positionSigma, measuredLength } from '@/core/calibrate';
import { endOf, pieceLength, startOf, subtract, angleOf } from '@/core/geometry';
import { shapeOf } from '@/core/outline';
import { formatAngle, formatLength, formatPlusMinus } from '@/core/units';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { wordForSnap } from '@/ui/words';
import { hintFor } from './hints';
import { NudgeRow } from './nudge-row';
import type { StepName } from './step';
import { wordsForHint } from '@/ui/hint-words';
import { useUnits } from './use-units';

/** Where the aim is with its plus-minus, the size on its way, and the hint for the step. */
export function Readout({ step, wide }: { step: StepName; wide: boolean }) {
  const palette = usePalette();
  const fitted = useFitted();
  const tool = useSession((state) => state.tool);
  const job = useJob((state) => state.job);
  const place = usePlaceText();
  const size = useSizeText();
  const folding = useSession((state) => state.folding);
  const hint = folding ? wordsForHint({ code: 'folded' }) : hintFor(step, tool, fitted, job);
  const nudging = useSession((state) => state.nudging && state.patch !== undefined);
  // On a phone three lines have to do, whatever they say, so that nothing jumps: while a finger is down its figures matter, afterwards what comes next.
  const aiming = useSession((state) => state.patch !== undefined && !state.nudging);
  const showSize = size !== '' && (wide || aiming);
  const showHint = wide || !showSize;
  return (
    <View
      style={{
        backgroundColor: palette.paper,
        borderTopWidth: 1,
        borderTopColor: palette.rule,
        minHeight: wide ? 30 : 64,
        flexDirection: 'row',
        alignItems: 'center',
      }}>
      <View
        role="status"
        style={{
          flex: 1,
          minWidth: 0,
          paddingHorizontal: 10,
          paddingVertical: 4,
          flexDirection: wide ? 'row' : 'column',
          gap: wide ? 18 : 0,
        }}>
        {showHint ? (
          <Words lines={wide ? 1 : 2} style={{ fontSize: 13.5, lineHeight: wide ? 19 : 18 }} testID="hint">
            {hint}
          </Words>
        ) : null}
        <View style={wide ? { flexDirection: 'row', gap: 14, marginLeft: 'auto' } : {}}>
          {showSize ? (
            <Figures lines={1} style={{ fontSize: 13, lineHeight: 19 }} testID="readout-size">
              {size}
            </Figures>
          ) : null}
          <Figures quiet lines={1} style={{ fontSize: 13, lineHeight: 19 }} testID="readout-place">
            {place}
          </Figures>
        </View>
      </View>
      {nudging ? <NudgeRow /> : null}
    </View>
  );
}

function usePlaceText(): string {
  const fitted = useFitted();
  const units = useUnits();
  const aim = useSession((state) => state.aim);
  const nudging = useSession((state) => state.nudging);
  return useMemo(() => {
    if (!aim || !fitted) return '';
    if (!fitted.fit.scaled) return 'no scale yet';
    const sigma = positionSigma(fitted.fit, { at: aim.sheet, sigma: aim.sigma, edge: aim.edge });
    const rounded = (mm: number) => formatLength(mm, units, sigma).split(' ±')[0]!;
    // What is known may have changed since the aim was brought there.
    const [across, up] = fitted.fit.toPlane(aim.sheet);
    const caught = nudging && aim.snap ? `${wordForSnap(aim.snap)}: ` : '';
    return `${caught}across ${rounded(across)}, up ${rounded(up)} ${formatPlusMinus(sigma, units)}`;
  }, [aim, nudging, fitted, units]);
}

/** The length and angle of the segment on its way, the radius of a circle, or the span between two places. */
function useSizeText(): string {
  const { session } = useDesk();
  const fitted = useFitted();
  const units = useUnits();
  const tool = useSession((state) => state.tool);
  const aim = useSession((state) => state.aim);
  return useMemo(() => {
    const context = session.findContext();
    if (!context || !fitted || !aim) return '';
    const preview = toolOf(tool).preview(tool.state, aim, context);
    const scaled = fitted.fit.scaled;
    const between = preview.span && toolOf(tool).between?.(tool.state);
    if (between) {
      const [a, b] = between;
      if (!a || !scaled) return '';
      const { value, sigma } = measuredLength(fitted.fit, a, b ?? { at: aim.sheet, sigma: aim.sigma, edge: aim.edge });
      return formatLength(value, units, sigma);
    }
    const outline = preview.outlines[0];
    const piece = outline && shapeOf(outline, fitted.placing).pieces.at(-1);
    if (!piece) return '';
    const length = (mm: number) => (scaled ? formatLength(mm, units) : 'no scale yet');
    if (outline.shape === 'circle') return piece.kind === 'arc' ? `diameter ${length(2 * piece.radius)}` : '';
    const angle = formatAngle(angleOf(subtract(endOf(piece), startOf(piece))));
    return piece.kind === 'arc'
      ? `radius ${length(piece.radius)}, along ${length(pieceLength(piece))}`
      : `${length(pieceLength(piece))} at ${angle}`;
  }, [session, fitted, aim, tool, units]);
}
