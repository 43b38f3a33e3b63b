import { useState } from 'react';
import { Button } from 'react-native-paper';
import { packJob, repository } from '@/store';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { safeFileName, saveFile } from './download';

/** The whole job as one file. */
export function BundleCard({ fileName, job }: { fileName: string; job: () => Parameters<typeof packJob>[0] }) {
  const [says, setSays] = useState<string>();
  const [busy, setBusy] = useState(false);
  const save = async () => {
    setBusy(true);
    const packed = await packJob(job(), repository);
    setBusy(false);
    if (packed.kind === 'refused') return setSays(sentenceFor(packed.code, packed.detail));
    setSays(packed.missing > 0 ? sentenceFor('bundle-without', { count: packed.missing }) : undefined);
    saveFile(`${safeFileName(fileName)}.bryony.zip`, packed.bytes, 'application/zip');
  };
  return (
    <Card>
      <Words style={{ fontWeight: '700' }}>The whole job</Words>
      <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>
        One file with the pictures and everything known and drawn. It opens again on any device.
      </Words>
      <Button mode="outlined" icon="bundle" loading={busy} onPress={() => void save()} testID="save-bundle">
        Save bundle
      </Button>
      {says ? <Words>{says}</Words> : null}
    </Card>
  );
}
