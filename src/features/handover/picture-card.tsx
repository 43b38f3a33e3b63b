import { strToU8, zipSync } from 'fflate';
import { useState } from 'react';
import { Button } from 'react-native-paper';
import { useFitted } from '@/bench/use-session';
import { squaredFrame } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { writeWorldFile } from '@/core/formats';
import { openShown, repository, shownPicture } from '@/store';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { pictureWorker } from '@/workers';
import { safeFileName, saveFile } from './download';

/** The largest picture that is made: about 160 MB while it is. */
const MOST_PIXELS = 40e6;

/** The picture of the view squared up by its fit, true to scale: a PNG with the world file that says how large a pixel is. */
export function PictureCard({ fileName }: { fileName: string }) {
  const fitted = useFitted();
  const [work, setWork] = useState<{ readonly abort: AbortController; readonly share: number }>();
  const [says, setSays] = useState<string>();
  if (!fitted?.fit.scaled) return null;
  const save = async () => {
    const abort = new AbortController();
    setSays(undefined);
    setWork({ abort, share: 0 });
    const outcome = await squaredUp(fitted, abort.signal, (share) => setWork({ abort, share }));
    setWork(undefined);
    if (typeof outcome === 'string') setSays(outcome === 'cancelled' ? undefined : sentenceFor(outcome));
    else
      saveFile(
        `${safeFileName(fileName)}-squared-up.zip`,
        zipSync({
          [`${safeFileName(fileName)}.png`]: [outcome.png, { level: 0 }],
          [`${safeFileName(fileName)}.pgw`]: strToU8(outcome.world),
        }),
        'application/zip',
      );
  };
  const { width, height, perMm } = squaredFrame(fitted.fit, MOST_PIXELS);
  return (
    <Card testID="picture-card">
      <Words style={{ fontWeight: '700' }}>The picture, squared up</Words>
      <Words
        quiet
        style={{
          fontSize: 13.5,
          lineHeight: 18,
        }}>{`A PNG of ${width} × ${height} px, ${perMm.toFixed(2)} px a millimetre, with a world file in millimetres.`}</Words>
      {work ? (
        <Button
          mode="outlined"
          onPress={() => work.abort.abort()}
          testID="stop-picture">{`Stop squaring up (${Math.round(100 * work.share)} %)`}</Button>
      ) : (
        <Button mode="outlined" icon="picture" onPress={() => void save()} testID="save-picture">
          Save picture
        </Button>
      )}
      {says ? <Words>{says}</Words> : null}
    </Card>
  );
}

/** The two files, or the code of why there are none. */
async function squaredUp(
  { fit, sheet, view }: FittedView,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<{ png: Uint8Array; world: string } | string> {
  const picture = shownPicture(view, sheet);
  if (!(await openShown(picture, repository))) return 'picture-missing';
  const frame = squaredFrame(fit, MOST_PIXELS);
  const outcome = await pictureWorker.call(
    'straighten',
    { hash: picture.key, map: fit.map, frame },
    { signal, onProgress },
  );
  if (outcome.kind === 'cancelled') return 'cancelled';
  if (outcome.kind === 'failed') return outcome.code;
  return outcome.value
    ? { png: new Uint8Array(outcome.value), world: writeWorldFile(frame.corner, frame.perMm) }
    : 'picture-missing';
}
