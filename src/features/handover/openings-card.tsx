import { View } from 'react-native';
import { useJob } from '@/bench/use-session';
import { handOf, lineOfOpening, listOpenings, type OpeningRow } from '@/core/derive';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { fileWorker } from '@/workers';
import { safeFileName } from './download';
import { SaveTable } from './save-table';

/** The list of doors and windows; to be saved as a table. */
export function OpeningsCard({ fileName }: { fileName: string }) {
  const job = useJob((state) => state.job);
  const all = listOpenings(job);
  const rows = all.filter(({ line }) => line);
  if (all.length === 0) return null;
  return (
    <Card testID="openings-card">
      <Words style={{ fontWeight: '700' }}>
        {rows.length === 1 ? '1 opening' : `${rows.length} doors, windows and gaps`}
      </Words>
      {rows.map((row) => (
        <OpeningWords key={row.opening.id} row={row} />
      ))}
      {rows.length < all.length ? (
        <Words quiet style={{ fontSize: 14 }}>
          What has lost its corner is left out.
        </Words>
      ) : null}
      <SaveTable
        fileName={`${safeFileName(fileName)}-openings`}
        write={() => fileWorker.call('writeOpenings', { lines: rows.map(lineOfOpening) })}
        testID="save-openings"
      />
    </Card>
  );
}

function OpeningWords({ row: { opening, kind, mark } }: { row: OpeningRow }) {
  const units = useUnits();
  const palette = usePalette();
  const { width, sill = 0, head } = opening;
  const hand = handOf(opening);
  const about = [
    sill > 0 ? `sill at ${formatLength(sill, units)}` : undefined,
    hand ? `hinges ${hand}` : opening.fill?.hung ? 'two leaves' : undefined,
  ].filter(Boolean);
  return (
    <View style={{ borderTopWidth: 1, borderColor: palette.rule, paddingTop: 6 }} testID={`opening-${mark}`}>
      <Words>{`${mark} · ${kind}${about.length > 0 ? ` · ${about.join(', ')}` : ''}`}</Words>
      <Figures
        style={{
          fontSize: 14,
        }}>{`${formatLength(width, units)}${head === undefined ? ' wide' : ` by ${formatLength(head - sill, units)}`}`}</Figures>
    </View>
  );
}
