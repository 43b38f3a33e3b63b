import { useState } from 'react';
import { Image, Pressable, View } from 'react-native';
import { Button, Dialog, Menu, Portal, TextInput } from 'react-native-paper';
import type { JobCard } from '@/store';
import { usePalette } from '@/ui/palette';
import { RoundButton } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';

interface JobCardViewProps {
  readonly card: JobCard;
  readonly onOpen: () => void;
  readonly onDelete: () => void;
  readonly onDuplicate: () => void;
  readonly onRename: (name: string) => void;
}

/** One job: its picture, name, when it changed, how far it is, and how good its fit is. */
export function JobCardView({ card, onOpen, onDelete, onDuplicate, onRename }: JobCardViewProps) {
  const palette = usePalette();
  const [menu, setMenu] = useState(false);
  const [name, setName] = useState<string>();
  const choose = (action: () => void) => () => {
    setMenu(false);
    action();
  };
  return (
    <View style={{ width: 340, maxWidth: '100%', backgroundColor: palette.paper, borderRadius: 10, borderWidth: 1, borderColor: palette.rule, flexDirection: 'row' }} testID={`job-${card.name}`}>
      <Pressable onPress={onOpen} accessibilityRole="button" accessibilityLabel={`Open ${card.name}`} style={{ flex: 1, flexDirection: 'row', gap: 12, padding: 10, minWidth: 0 }}>
        <View style={{ width: 104, height: 78, borderRadius: 6, overflow: 'hidden', backgroundColor: palette.bench }}>
          {card.thumbnail ? <Image source={{ uri: card.thumbnail }} style={{ width: 104, height: 78 }} resizeMode="cover" accessible={false} /> : null}
        </View>
        <View style={{ flex: 1, gap: 1, minWidth: 0 }}>
          <Words lines={1} style={{ fontWeight: '700' }}>{card.name}</Words>
          <Figures quiet lines={1} style={{ fontSize: 12.5 }}>{whenChanged(card.changed)}</Figures>
          <Words quiet lines={1} style={{ fontSize: 13.5 }}>{progressOf(card)}</Words>
          <Figures lines={1} style={{ fontSize: 13 }}>{fitOf(card)}</Figures>
        </View>
      </Pressable>
      <Menu visible={menu} onDismiss={() => setMenu(false)} anchor={<RoundButton icon="more" name={`More for ${card.name}`} onPress={() => setMenu(true)} />}>
        <Menu.Item leadingIcon="pencil" title="Rename" onPress={choose(() => setName(card.name))} />
        <Menu.Item leadingIcon="copy" title="Duplicate" onPress={choose(onDuplicate)} />
        <Menu.Item leadingIcon="trash" title="Delete" onPress={choose(onDelete)} />
      </Menu>
      <Portal>
        <Dialog visible={name !== undefined} onDismiss={() => setName(undefined)} style={{ maxWidth: 420, width: '90%', alignSelf: 'center' }}>
          <Dialog.Title>Rename the job</Dialog.Title>
          <Dialog.Content><TextInput mode="outlined" label="Name" accessibilityLabel="Name" value={name ?? ''} onChangeText={setName} maxLength={200} autoFocus /></Dialog.Content>
          <Dialog.Actions>
            <Button onPress={() => setName(undefined)}>Keep the old one</Button>
            <Button mode="contained" disabled={!name?.trim()} onPress={() => {
              onRename(name!.trim());
              setName(undefined);
            }}>Rename</Button>
          </Dialog.Actions>
        </Dialog>
      </Portal>
    </View>
  );
}

function whenChanged(changed: string): string {
  return new Date(changed).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
}

function progressOf({ pictures, outlines }: JobCard): string {
  if (pictures === 0) return 'No pictures yet';
  const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
  return `${count(pictures, 'picture', 'pictures')}, ${count(outlines, 'outline', 'outlines')}`;
}

function fitOf({ fit, checked }: JobCard): string {
  if (fit === 'no-pictures') return '';
  return fit === 'no-scale' ? 'no scale yet' : `${fit}${checked ? ', checked' : ''}`;
}
