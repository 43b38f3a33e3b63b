import { useState } from 'react';
import { Image, Pressable, View } from 'react-native';
import { TextInput } from 'react-native-paper';
import type { JobCard } from '@/store';
import { usePalette } from '@/ui/palette';
import { LedgeButton, RoundButton } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';

export interface JobCardActions {
  readonly onOpen: () => void;
  readonly onDelete: () => void;
  readonly onDuplicate: () => void;
  readonly onRename: (name: string) => void;
}

type JobCardViewProps = JobCardActions & { readonly card: JobCard };

/** One job: its picture, name, when it changed, how far it is, and how good its fit is. "More" opens what can be done with it. */
export function JobCardView({ card, onOpen, onDelete, onDuplicate, onRename }: JobCardViewProps) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const [renaming, setRenaming] = useState(false);
  const choose = (action: () => void) => () => {
    setOpen(false);
    action();
  };
  return (
    <View
      style={{
        width: 340,
        maxWidth: '100%',
        backgroundColor: palette.paper,
        borderRadius: 10,
        borderWidth: 1,
        borderColor: palette.rule,
      }}
      testID={`job-${card.name}`}>
      <View style={{ flexDirection: 'row' }}>
        <OpenButton card={card} onOpen={onOpen} />
        <RoundButton
          icon={open ? 'close' : 'more'}
          name={open ? `Less for ${card.name}` : `More for ${card.name}`}
          onPress={() => setOpen(!open)}
        />
      </View>
      {open ? (
        <View
          style={{
            flexDirection: 'row',
            justifyContent: 'space-around',
            borderTopWidth: 1,
            borderTopColor: palette.rule,
          }}>
          <LedgeButton icon="pencil" label="Rename" onPress={choose(() => setRenaming(true))} />
          <LedgeButton icon="copy" label="Duplicate" onPress={choose(onDuplicate)} />
          <LedgeButton icon="trash" label="Delete" onPress={choose(onDelete)} />
        </View>
      ) : null}
      {renaming ? (
        <RenameRow
          name={card.name}
          onCancel={() => setRenaming(false)}
          onRename={(name) => (setRenaming(false), onRename(name))}
        />
      ) : null}
    </View>
  );
}

/** Read out and not seen. */
const UNSEEN = { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 } as const;

/** Its picture and what is known of it: all of it opens it. */
function OpenButton({ card, onOpen }: { card: JobCard; onOpen: () => void }) {
  const palette = usePalette();
  return (
    <Pressable
      onPress={onOpen}
      accessibilityRole="button"
      style={{ flex: 1, flexDirection: 'row', gap: 12, padding: 10, minWidth: 0 }}>
      <Words style={UNSEEN}>Open</Words>
      <View style={{ width: 104, height: 78, borderRadius: 6, overflow: 'hidden', backgroundColor: palette.bench }}>
        {card.thumbnail ? (
          <Image
            source={{ uri: card.thumbnail }}
            style={{ width: 104, height: 78 }}
            resizeMode="cover"
            accessible={false}
          />
        ) : null}
      </View>
      <View style={{ flex: 1, gap: 1, minWidth: 0 }}>
        <Words lines={2} style={{ fontWeight: '700' }}>
          {card.name}
        </Words>
        <Figures quiet lines={1} style={{ fontSize: 12.5 }}>
          {whenChanged(card.changed)}
        </Figures>
        <Words quiet lines={1} style={{ fontSize: 13.5 }}>
          {progressOf(card)}
        </Words>
        <Figures lines={1} style={{ fontSize: 13 }}>
          {fitOf(card)}
        </Figures>
      </View>
    </Pressable>
  );
}

function RenameRow({
  name,
  onCancel,
  onRename,
}: {
  name: string;
  onCancel: () => void;
  onRename: (name: string) => void;
}) {
  const palette = usePalette();
  const [text, setText] = useState(name);
  const rename = () => text.trim() !== '' && onRename(text.trim());
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 6,
        padding: 8,
        borderTopWidth: 1,
        borderTopColor: palette.rule,
      }}>
      <TextInput
        mode="outlined"
        dense
        label="Name"
        accessibilityLabel="Name"
        value={text}
        onChangeText={setText}
        onSubmitEditing={rename}
        maxLength={200}
        style={{ flex: 1, height: 44, backgroundColor: palette.paper }}
      />
      <RoundButton icon="tick" name="Take this name" onPress={rename} disabled={text.trim() === ''} />
      <RoundButton icon="close" name="Keep the old name" onPress={onCancel} />
    </View>
  );
}

function whenChanged(changed: string): string {
  return changed === ''
    ? ''
    : new Date(changed).toLocaleString(undefined, {
        day: 'numeric',
        month: 'short',
        hour: 'numeric',
        minute: '2-digit',
      });
}

function progressOf({ pictures, outlines, fit }: JobCard): string {
  if (fit === 'unreadable') return 'Its card is damaged';
  if (pictures === 0) return 'No pictures yet';
  const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
  return `${count(pictures, 'picture', 'pictures')}, ${count(outlines, 'outline', 'outlines')}`;
}

function fitOf({ fit, checked }: JobCard): string {
  if (fit === 'no-pictures' || fit === 'unreadable') return '';
  return fit === 'no-scale' ? 'no scale yet' : `${fit}${checked ? ', checked' : ''}`;
}
