import { useRef, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Words } from '@/ui/text';
import { CameraDialog } from './camera/camera-dialog';
import { ParcelDialog } from './services/parcel-dialog';
import type { Parcel } from './services/parcels';
import { ScannerDialog } from './services/scanner-dialog';
import type { BringIn, Incoming } from './use-bring-in';

/** Every way in: files, the camera with its guide, a scanner, the land register. */
export function AddPictures({ bringIn, empty }: { bringIn: BringIn; empty: boolean }) {
  const files = useRef<HTMLInputElement>(null);
  const [open, setOpen] = useState<'camera' | 'scanner' | 'parcel'>();
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
        <Button mode="contained" icon="picture" onPress={() => files.current?.click()} testID="choose-pictures">Choose</Button>
        <Button mode="outlined" icon="camera" onPress={() => setOpen('camera')} testID="open-camera">Take a photo</Button>
        <Button mode="outlined" icon="scan" onPress={() => setOpen('scanner')} testID="open-scanner">Scan</Button>
        <Button mode="outlined" icon="map" onPress={() => setOpen('parcel')} testID="open-parcel">Parcel</Button>
      </View>
      <input ref={files} type="file" multiple accept="image/*,video/*,.tif,.tiff,.heic,.heif,.pdf,.dxf,.svg,.json,.geojson,.jgw,.pgw,.tfw,.wld" hidden aria-label="Picture files" data-testid="picture-files" onChange={chosen} />
      {open === 'camera' ? <CameraDialog onTaken={take} onLeave={close} /> : null}
      {open === 'scanner' ? <ScannerDialog onScanned={take} onLeave={close} /> : null}
      {open === 'parcel' ? <ParcelDialog onFound={(parcel) => void takeParcel(parcel)} onLeave={close} /> : null}
      {empty ? <Words quiet style={{ fontSize: 13 }}>Square-on, close, level, on plain ground, with something of known size beside it.</Words> : null}
    </>
  );
}
