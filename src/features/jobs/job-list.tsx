import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import type { JobCard } from '@/store';
import { Choice } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { JobCardView, type JobCardActions } from './job-card-view';

/** With more jobs than a screen shows they are looked for and put in order. */
const MANY = 12;
/** So many are shown at once, and as many more again when they are asked for. */
const AT_ONCE = 60;

type Order = 'newest' | 'name';
const ORDERS: readonly (readonly [Order, string])[] = [
  ['newest', 'Newest first'],
  ['name', 'By name'],
];

/** Cards whose names hold every word that is looked for, in an order; jobs come newest first. */
export function listSought(cards: readonly JobCard[], sought: string, order: Order): readonly JobCard[] {
  const words = sought.toLocaleLowerCase().split(/\s+/).filter(Boolean);
  const found = cards.filter(({ name }) => words.every((word) => name.toLocaleLowerCase().includes(word)));
  return order === 'newest'
    ? found
    : [...found].sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }));
}

/** The jobs on this device. */
export function JobList({
  cards,
  actionsOf,
}: {
  cards: readonly JobCard[];
  actionsOf: (card: JobCard) => JobCardActions;
}) {
  const palette = usePalette();
  const [sought, setSought] = useState('');
  const [shown, setShown] = useState(AT_ONCE);
  const [order, setOrder] = useState<Order>('newest');
  const found = cards.length > MANY ? listSought(cards, sought, order) : cards;
  return (
    <View style={{ gap: 12 }}>
      {cards.length > MANY ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10, alignItems: 'center' }}>
          <TextInput
            mode="outlined"
            dense
            label="Look for a job"
            accessibilityLabel="Look for a job"
            value={sought}
            onChangeText={setSought}
            maxLength={200}
            testID="job-search"
            style={{ width: 260, height: 44, backgroundColor: palette.paper }}
          />
          <Choice name="Order of the jobs" value={order} options={ORDERS} onChange={setOrder} />
        </View>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14 }} testID="jobs">
        {found.slice(0, shown).map((card) => (
          <JobCardView key={card.id} card={card} {...actionsOf(card)} />
        ))}
      </View>
      {cards.length > MANY && found.length === 0 ? <Words quiet>{`No job is called “${sought.trim()}”.`}</Words> : null}
      {found.length > shown ? (
        <Button
          mode="outlined"
          style={{ alignSelf: 'flex-start' }}
          onPress={() => setShown(shown + AT_ONCE)}
          testID="jobs-more">{`Show more: ${found.length - shown} are left`}</Button>
      ) : null}
    </View>
  );
}
