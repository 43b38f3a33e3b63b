import { useRef, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useJob } from '@/bench/use-session';
import { Words } from '@/ui/text';
import { ACCEPTED } from './accepted';
import { FromJobDialog } from './from-job-dialog';
import { CameraDialog } from './camera/camera-dialog';
import { ParcelDialog } from './services/parcel-dialog';
import type { Parcel } from './services/parcels';
import { ScannerDialog } from './services/scanner-dialog';
import type { Incoming } from './take-picture';
import type { BringIn } from './use-bring-in';

/** Every way in: files, the camera with its guide, a scanner, the land register. */
export function AddPictures({ bringIn, empty }: { bringIn: BringIn; empty: boolean }) {
  const files = useRef<HTMLInputElement>(null);
  const [open, setOpen] = useState<'camera' | 'scanner' | 'parcel' | 'job'>();
  const demo = useJob((state) => state.job.tour === 'sources');
  const close = () => setOpen(undefined);
  const chosen = (event: React.ChangeEvent<HTMLInputElement>) => {
    void bringIn.bring([...(event.target.files ?? [])]);
    event.target.value = '';
  };
  const take = (incoming: Incoming) => (close(), void bringIn.take([incoming]));
  const takeParcel = async ({ address, boundary, picture, place }: Parcel) => {
    close();
    // The boundary comes first: it gives the site its zero.
    await bringIn.bringReference(`${address}.geojson`, boundary);
    await bringIn.take([{ file: picture, told: { kind: 'photo' }, place }]);
  };
  return (
    <>
      <Words>{empty ? 'Choose pictures, drawings or a film, drop them here, or paste them.' : 'Add more.'}</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button mode="contained" icon="picture" onPress={() => files.current?.click()} testID="choose-pictures">
          Choose
        </Button>
        <Button mode="outlined" icon="camera" onPress={() => setOpen('camera')} testID="open-camera">
          Take a photo
        </Button>
        <Button mode="outlined" icon="scan" onPress={() => setOpen('scanner')} testID="open-scanner">
          Scan
        </Button>
        <Button mode="outlined" icon="map" onPress={() => setOpen('parcel')} testID="open-parcel">
          Parcel
        </Button>
        <Button mode="outlined" icon="layers" onPress={() => setOpen('job')} testID="open-from-job">
          Another job
        </Button>
      </View>
      <input
        ref={files}
        type="file"
        multiple
        accept={ACCEPTED}
        hidden
        aria-label="Picture files"
        data-testid="picture-files"
        onChange={chosen}
      />
      {demo ? <DemoFiles bringIn={bringIn} /> : null}
      {open === 'camera' ? (
        <CameraDialog onTaken={take} onFiles={(photos) => (close(), void bringIn.bring(photos))} onLeave={close} />
      ) : null}
      {open === 'scanner' ? <ScannerDialog onScanned={take} onLeave={close} /> : null}
      {open === 'parcel' ? <ParcelDialog onFound={(parcel) => void takeParcel(parcel)} onLeave={close} /> : null}
      {open === 'job' ? <FromJobDialog onLeave={close} /> : null}
      {empty ? (
        <Words quiet style={{ fontSize: 13 }}>
          Square-on, close, level, on plain ground, with something of known size beside it.
        </Words>
      ) : null}
    </>
  );
}

const DEMO_FILES: readonly (readonly [file: string, says: string, type: string])[] = [
  ['bench.pdf', 'Bench drawings, PDF', 'application/pdf'],
  ['nest-boxes.webm', 'Nest boxes, film', 'video/webm'],
  ['shed-sketch.jpg', 'Shed, a pencil sketch', 'image/jpeg'],
  ['pond.dxf', 'Pond survey, DXF', 'image/vnd.dxf'],
  ['stones.jpg', 'Stepping stones, a stained sketch', 'image/jpeg'],
];

/** Files of the demo, brought in like anybody's own. */
function DemoFiles({ bringIn }: { bringIn: BringIn }) {
  const fetchAndBring = async (name: string, type: string) => {
    const response = await fetch(`/demo/${name}`).catch(() => undefined);
    if (response?.ok) await bringIn.bring([new File([await response.blob()], name, { type })]);
  };
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
      {DEMO_FILES.map(([name, says, type]) => (
        <Button key={name} compact onPress={() => void fetchAndBring(name, type)} testID={`demo-file-${name}`}>
          {says}
        </Button>
      ))}
    </View>
  );
}
