import { useMemo } from 'react';
import { View } from 'react-native';
import { useFitted, useJob } from '@/bench/use-session';
import { measureExtent, outlinesLeaving } from '@/core/derive';
import { formatAngle, formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Figures, Words } from '@/ui/text';

/** How large what leaves is and how well that is known, in the file's axes and, where it lies askew, along its own edges. */
export function ExtentWords({ only }: { only: readonly string[] | undefined }) {
  const units = useUnits();
  const fitted = useFitted();
  const { job, derived } = useJob((state) => state);
  const extent = useMemo(
    () =>
      fitted?.fit.scaled
        ? measureExtent(outlinesLeaving(job, { plane: fitted.view.plane, only }), { job, derived }, derived.shapes)
        : undefined,
    [job, derived, fitted, only],
  );
  if (!extent) return null;
  const size = ({ value, sigma }: { readonly value: number; readonly sigma: number }) =>
    formatLength(value, units, sigma);
  return (
    <View style={{ gap: 2, paddingTop: 4 }} testID="extent">
      <Words quiet style={{ fontSize: 13 }}>
        How well that is known
      </Words>
      <Figures
        style={{ fontSize: 14 }}
        testID="extent-level">{`${size(extent.width)} by ${size(extent.height)}`}</Figures>
      {extent.own ? (
        <>
          <Words
            quiet
            style={{
              fontSize: 13,
            }}>{`It lies ${formatAngle(Math.abs(extent.own.angle))} askew. Along its own longest edge, and across it:`}</Words>
          <Figures
            style={{ fontSize: 14 }}
            testID="extent-own">{`${size(extent.own.along)} by ${size(extent.own.across)}`}</Figures>
        </>
      ) : null}
    </View>
  );
}
