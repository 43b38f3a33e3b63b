import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { Measured } from '@/core/adjust';
import { ASSUMED, type Fit } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { setLift } from '@/core/job';
import { formatLength, parseLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { FONT, usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

/** How far the traced edge stands above what was measured: nearer the camera, things look larger. */
export function HeightCard({ fitted }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const { view, fit } = fitted;
  const found = fit.scaled && view.lift === undefined ? foundLift(fit) : undefined;
  const [text, setText] = useState(view.lift === undefined ? '' : String(Number(view.lift.toFixed(3))));
  const set = (mm: number | undefined) => jobs.getState().run(setLift(view.id, mm));
  return (
    <Card broad>
      <Words style={{ fontWeight: '700' }}>How high does the traced edge stand?</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        <View style={{ flexBasis: 300, flexGrow: 1, flexShrink: 1, gap: 6 }}>
          <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>
            Above what you measured, or above what that stands on where you said how high it stands. A 3 mm plate beside
            a card of 0.76 mm stands 2.24 mm higher and looks larger. Left open, up to 3 mm either way goes into the
            plus-minus.
          </Words>
          {found ? (
            <Words
              testID="found-height"
              style={{
                fontSize: 13.5,
                lineHeight: 18,
              }}>{`Your sizes beside it and on it put it at ${formatLength(found.value, units, found.sigma)}.`}</Words>
          ) : null}
          <View style={{ flexDirection: 'row', alignItems: 'flex-start', gap: 6 }}>
            <WrittenField
              label="Height"
              value={text}
              onChange={setText}
              parse={(written) => parseLength(written, units.style)}
              echo={({ mm }) => formatLength(mm, units)}
              onSubmit={({ mm }) => set(mm)}
              testID="height-field"
            />
            {view.lift === undefined ? null : (
              <Button style={{ marginTop: 4 }} onPress={() => (setText(''), set(undefined))}>
                Leave it open
              </Button>
            )}
          </View>
        </View>
        <HeightPicture />
      </View>
    </Card>
  );
}

/** Share of the assumed sigma below which the evidence has told something of the height. */
const TOLD = 0.8;

/** The height as the evidence makes it, mm; undefined while it says next to nothing. */
function foundLift({ values, covariance, layout: { lift } }: Fit): Measured | undefined {
  const sigma = Math.sqrt(covariance.get(lift, lift));
  return sigma < TOLD * ASSUMED.lift ? { value: values[lift]!, sigma } : undefined;
}

/** Why height matters: the ray that grazes the raised edge meets the plane farther out, and that much larger the thing looks. */
function HeightPicture() {
  const palette = usePalette();
  const words = { fill: palette.quiet, fontFamily: FONT.text, fontSize: 11.5 };
  return (
    <svg
      width={250}
      height={96}
      viewBox="0 0 250 96"
      role="img"
      aria-label="A raised edge is met by the camera's ray farther out on the plane: the thing looks larger by that much.">
      <path d="M6 84H244" stroke={palette.ink} strokeWidth={1.6} />
      <path d="M70 84V66H170V84" fill={palette.leaf} stroke={palette.ink} strokeWidth={1.6} />
      <path d="M114 6h12l-3 7h-6z" fill={palette.ink} />
      <path
        d="M120 13L186 84M120 13L54 84"
        stroke={palette.straw}
        strokeWidth={1.3}
        strokeDasharray="4 3"
        fill="none"
      />
      <path d="M170 90H186M54 90H70" stroke={palette.berry} strokeWidth={2.4} />
      <path d="M62 66v18M59 66h6M59 84h6" stroke={palette.tide} strokeWidth={1.4} />
      <text x={22} y={76} {...words}>
        height
      </text>
      <text x={190} y={76} {...words}>
        seen here
      </text>
    </svg>
  );
}
