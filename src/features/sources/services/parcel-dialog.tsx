import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Button, Dialog, TextInput } from 'react-native-paper';
import { AskDialog } from '@/ui/ask-dialog';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';
import { fetchParcel, findParcels, type Parcel } from './parcels';

interface ParcelDialogProps {
  readonly onFound: (parcel: Parcel) => void;
  readonly onLeave: () => void;
}

/** Finds a parcel by its address: the boundary comes in as reference geometry, the aerial picture lies on it to scale. */
export function ParcelDialog({ onFound, onLeave }: ParcelDialogProps) {
  const palette = usePalette();
  const [address, setAddress] = useState('');
  const search = useMutation({ mutationFn: () => findParcels(address) });
  const take = useMutation({ mutationFn: fetchParcel, onSuccess: (parcel) => parcel.ok && onFound(parcel.value) });
  const found = search.data?.ok ? search.data.value : undefined;
  const refusal = [take.data, search.data].find((answer) => answer && !answer.ok);
  const says =
    refusal && !refusal.ok
      ? sentenceFor(refusal.code)
      : found?.length === 0
        ? 'No parcel has that address. The simulated register knows 7 Medlar Lane.'
        : undefined;
  return (
    <AskDialog title="Simulated land register" onLeave={onLeave} testID="parcel-dialog">
      <Dialog.Content style={{ gap: 10 }}>
        <TextInput
          mode="outlined"
          dense
          label="Address"
          accessibilityLabel="Address of the parcel"
          placeholder="7 Medlar Lane"
          value={address}
          maxLength={120}
          onChangeText={setAddress}
          onSubmitEditing={() => search.mutate()}
          style={{ backgroundColor: palette.paper }}
          testID="parcel-address"
        />
        {found?.map((parcel) => (
          <Button
            key={parcel.id}
            mode="outlined"
            loading={take.isPending && take.variables === parcel.id}
            disabled={take.isPending}
            onPress={() => take.mutate(parcel.id)}
            testID={`parcel-${parcel.id}`}>
            {parcel.address}
          </Button>
        ))}
        {says ? (
          <Words style={{ color: palette.berry }} testID="parcel-says">
            {says}
          </Words>
        ) : null}
      </Dialog.Content>
      <Dialog.Actions>
        <Button onPress={onLeave}>Close</Button>
        <Button
          mode="contained"
          loading={search.isPending}
          disabled={address.trim() === '' || search.isPending}
          onPress={() => search.mutate()}
          testID="find-parcel">
          Find it
        </Button>
      </Dialog.Actions>
    </AskDialog>
  );
}
