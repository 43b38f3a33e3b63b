import { useRef, type RefObject } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { ACCEPTED } from '@/features/sources/accepted';

interface BeginningsProps {
  readonly isOpening: boolean;
  readonly onFiles: (files: readonly File[]) => void;
  readonly onNew: () => void;
  readonly onBundle: (file: File) => void;
  /** Gives up the bundle that is being opened. */
  readonly onStop: () => void;
}

/** How a job begins: with a picture that is chosen or taken here, with nothing, or from a bundle. */
export function Beginnings({ isOpening, onFiles, onNew, onBundle, onStop }: BeginningsProps) {
  const [pictures, camera, bundle] = [
    useRef<HTMLInputElement>(null),
    useRef<HTMLInputElement>(null),
    useRef<HTMLInputElement>(null),
  ];
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
      <Button mode="contained" icon="picture" onPress={() => pictures.current?.click()} testID="begin-picture">
        Choose a picture
      </Button>
      <Button mode="outlined" icon="camera" onPress={() => camera.current?.click()} testID="begin-photo">
        Take a photo
      </Button>
      <Button mode="outlined" onPress={onNew} testID="new-job">
        Empty job
      </Button>
      <Button
        mode="outlined"
        icon="bundle"
        onPress={isOpening ? onStop : () => bundle.current?.click()}
        testID={isOpening ? 'stop-opening' : 'open-bundle'}
        loading={isOpening}>
        {isOpening ? 'Stop opening it' : 'Open a bundle'}
      </Button>
      <Files
        input={pictures}
        name="Pictures of a new job"
        testID="begin-files"
        accept={ACCEPTED}
        multiple
        onFiles={onFiles}
      />
      <Files
        input={camera}
        name="Photo of a new job"
        testID="begin-camera"
        accept="image/*"
        capture="environment"
        onFiles={onFiles}
      />
      <Files
        input={bundle}
        name="Bundle file"
        testID="bundle-file"
        accept=".zip,.bryony"
        onFiles={([file]) => file && onBundle(file)}
      />
    </View>
  );
}

interface FilesProps {
  readonly input: RefObject<HTMLInputElement | null>;
  readonly name: string;
  readonly testID: string;
  readonly accept: string;
  readonly multiple?: boolean;
  readonly capture?: 'environment';
  readonly onFiles: (files: readonly File[]) => void;
}

function Files({ input, name, testID, onFiles, ...wanted }: FilesProps) {
  return (
    <input
      ref={input}
      type="file"
      {...wanted}
      hidden
      aria-label={name}
      data-testid={testID}
      onChange={(event) => {
        const files = [...(event.target.files ?? [])];
        event.target.value = '';
        if (files.length > 0) onFiles(files);
      }}
    />
  );
}
