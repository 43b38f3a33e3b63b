import { useMemo } from 'react';
import { View } from 'react-native';
import { useJob } from '@/bench/use-session';
import { lineOfPart, listParts, type PartRow } from '@/core/derive';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { usePalette } from '@/ui/palette';
import { Figures, Words } from '@/ui/text';
import { fileWorker } from '@/workers';
import { safeFileName } from './download';
import { SaveTable } from './save-table';

/** The list of parts: how many of what, of which size; to be saved as a table. */
export function PartsCard({ fileName }: { fileName: string }) {
  const { job, derived } = useJob((state) => state);
  const rows = useMemo(() => listParts(job, derived), [job, derived]);
  if (job.parts.length === 0) return null;
  return (
    <Card testID="parts-card">
      <Words style={{ fontWeight: '700' }}>{`${job.parts.length} ${job.parts.length === 1 ? 'part' : 'parts'}`}</Words>
      {rows.map((row) => (
        <PartWords key={row.part.id} row={row} />
      ))}
      {rows.length < job.parts.length ? (
        <Words quiet style={{ fontSize: 14 }}>
          Parts in views without scale are left out.
        </Words>
      ) : null}
      <SaveTable
        fileName={`${safeFileName(fileName)}-parts`}
        disabled={rows.length === 0}
        write={() => fileWorker.call('writeParts', { lines: rows.map(lineOfPart) })}
        testID="save-parts"
      />
    </Card>
  );
}

function PartWords({ row: { part, count, width, height } }: { row: PartRow }) {
  const units = useUnits();
  const palette = usePalette();
  const about = [
    part.material,
    part.thickness === undefined ? undefined : `${formatLength(part.thickness, units)} thick`,
    count.mirrored > 0 ? `${count.mirrored} mirrored` : undefined,
  ].filter(Boolean);
  return (
    <View style={{ borderTopWidth: 1, borderColor: palette.rule, paddingTop: 6 }} testID={`part-${part.name}`}>
      <Words>{`${count.plain + count.mirrored} × ${part.name}${about.length > 0 ? ` · ${about.join(', ')}` : ''}`}</Words>
      <Figures
        style={{
          fontSize: 14,
        }}>{`${formatLength(width.value, units, width.sigma)} by ${formatLength(height.value, units, height.sigma)}`}</Figures>
    </View>
  );
}
