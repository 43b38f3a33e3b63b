import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { Button, Dialog, ProgressBar } from 'react-native-paper';
import { Choice } from '@/ui/ledge-button';
import { AskDialog } from '@/ui/ask-dialog';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import type { Incoming } from '../take-picture';
import { findScanner, scanPicture, type Scanner } from './scanner';

/** What is asked of a scanner. */
interface Wish {
  readonly dpi: string;
  readonly colour: string;
  readonly part: 'whole' | 'half';
}

interface ScannerDialogProps {
  readonly onScanned: (incoming: Incoming) => void;
  readonly onLeave: () => void;
}

/** A flatbed scanner: resolution, colour, how much of the glass; the picture arrives to scale, with the scanner's own plus-minus. */
export function ScannerDialog({ onScanned, onLeave }: ScannerDialogProps) {
  const palette = usePalette();
  const { data, refetch, isFetching } = useQuery({
    queryKey: ['scanner'],
    queryFn: findScanner,
    staleTime: 0,
    gcTime: 0,
  });
  const [wish, setWish] = useState<Wish>({ dpi: '300', colour: 'colour', part: 'whole' });
  const [share, setShare] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const abort = useRef<AbortController>(undefined);
  const scanner = data?.ok ? data.value : undefined;
  const scan = async () => {
    if (!scanner) return;
    abort.current = new AbortController();
    setProblem(undefined);
    setShare(0);
    const dpi = Number(wish.dpi);
    const area =
      wish.part === 'whole' ? undefined : { x: 0, y: 0, width: scanner.area.width / 2, height: scanner.area.height };
    const picture = await scanPicture({ dpi, colour: wish.colour, area }, abort.current.signal, setShare);
    setShare(undefined);
    if (picture.ok)
      onScanned({ file: picture.value, told: { dpi, kind: 'scan', scaleError: scanner.scaleError / 100 } });
    else if (picture.code !== 'cancelled') setProblem(sentenceFor(picture.code));
  };
  const says =
    problem ??
    (data && !data.ok
      ? sentenceFor(data.code)
      : scanner?.state === 'lid-open'
        ? sentenceFor('scanner-lid-open')
        : undefined);
  const leave = () => (abort.current?.abort(), onLeave());
  return (
    <AskDialog title={scanner?.name ?? 'Scanner'} onLeave={leave} testID="scanner-dialog">
      <Dialog.Content style={{ gap: 10 }}>
        {scanner ? (
          <ScanWish scanner={scanner} wish={wish} onWish={setWish} />
        ) : (
          <Words quiet>{isFetching ? 'Looking for the scanner …' : ''}</Words>
        )}
        {share === undefined ? null : (
          <View>
            <Words>{`Scanning … ${Math.round(100 * share)} %`}</Words>
            <ProgressBar progress={share} accessibilityLabel="Scanning" />
          </View>
        )}
        {says ? (
          <Words style={{ color: palette.berry }} testID="scanner-says">
            {says}
          </Words>
        ) : null}
      </Dialog.Content>
      <Dialog.Actions>
        <Button onPress={leave}>{share === undefined ? 'Close' : 'Stop'}</Button>
        {scanner ? (
          <Button mode="contained" disabled={share !== undefined} onPress={() => void scan()} testID="scan">
            Scan
          </Button>
        ) : (
          <Button mode="contained" disabled={isFetching} onPress={() => void refetch()}>
            Look again
          </Button>
        )}
      </Dialog.Actions>
    </AskDialog>
  );
}

function ScanWish({ scanner, wish, onWish }: { scanner: Scanner; wish: Wish; onWish: (wish: Wish) => void }) {
  const { area } = scanner;
  return (
    <>
      <Choice
        name="Resolution"
        value={wish.dpi}
        options={scanner.dpi.map((value) => [String(value), `${value} dots an inch`] as const)}
        onChange={(dpi) => onWish({ ...wish, dpi })}
      />
      <Choice
        name="Colour"
        value={wish.colour}
        options={scanner.colours.map((value) => [value, value === 'grey' ? 'Grey' : 'Colour'] as const)}
        onChange={(colour) => onWish({ ...wish, colour })}
      />
      <Choice
        name="How much of the glass"
        value={wish.part}
        options={[
          ['whole', `All of it, ${area.width} × ${area.height} mm`],
          ['half', 'Left half'],
        ]}
        onChange={(part) => onWish({ ...wish, part })}
      />
      <Words
        quiet
        style={{
          fontSize: 13.5,
        }}>{`Its sheet promises lengths to ±${scanner.scaleError} %. The picture arrives with that.`}</Words>
    </>
  );
}
