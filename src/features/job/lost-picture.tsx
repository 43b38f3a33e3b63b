import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useFitted } from '@/bench/use-session';
import { type Sheet } from '@/core/job';
import { pictureKey } from '@/core/pictures';
import { bringBack, bringToHand, repository, type AtHand } from '@/store';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { sentenceFor } from '@/ui/words';

const SAYS: Readonly<Record<Exclude<AtHand, 'there'>, string>> = {
  gone: 'picture-missing',
  damaged: 'picture-unreadable',
  failed: 'picture-not-shown',
};

/** Clear of what is said over the bench's upper edge, CSS px. */
const BELOW_BANNER = 74;

/** Says over the bench that the picture of this view cannot be had, and takes it back from its file. */
export function LostPicture() {
  const fitted = useFitted();
  const sheet = fitted && fitted.sheet.bytes > 0 ? fitted.sheet : undefined;
  const key = sheet && pictureKey(sheet);
  const { data: atHand, refetch } = useQuery({
    queryKey: ['at-hand', key],
    queryFn: () => bringToHand(key!, repository),
    enabled: key !== undefined,
  });
  if (!sheet || !atHand || atHand === 'there') return null;
  return <Lost key={key} sheet={sheet} why={atHand} onBack={() => void refetch()} />;
}

function Lost({ sheet, why, onBack }: { sheet: Sheet; why: Exclude<AtHand, 'there'>; onBack: () => void }) {
  const { session } = useDesk();
  const client = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const [says, setSays] = useState<string>();
  const takeBack = async (file: File) => {
    const refusal = await bringBack(sheet.picture, file, repository);
    if (refusal) return setSays(sentenceFor(refusal, { name: file.name }));
    await client.invalidateQueries({ queryKey: ['thumbnail'] });
    onBack();
    session.say('picture-back', { name: sheet.name });
  };
  return (
    <View
      style={{ position: 'absolute', left: 8, right: 64, top: BELOW_BANNER, pointerEvents: 'box-none' }}
      testID="lost-picture">
      <Card style={{ maxWidth: 420 }}>
        <Words style={{ fontWeight: '700' }}>{sheet.name}</Words>
        <Words>{says ?? sentenceFor(SAYS[why])}</Words>
        {why === 'failed' ? (
          <Button mode="contained" onPress={onBack}>
            Try again
          </Button>
        ) : (
          <Button mode="contained" onPress={() => input.current?.click()}>
            Choose the file
          </Button>
        )}
        <input
          ref={input}
          type="file"
          hidden
          aria-label="The file of the picture"
          data-testid="lost-file"
          onChange={({ target }) => {
            const file = target.files?.[0];
            target.value = '';
            if (file) void takeBack(file);
          }}
        />
      </Card>
    </View>
  );
}
