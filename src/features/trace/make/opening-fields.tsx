import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { MadeOutline, Opening, Recipe } from '@/core/outline';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { LengthField } from './fields';

type Strip = Extract<Recipe, { kind: 'strip' }>;

const FROM = [['start', 'From its first corner'], ['end', 'From its last']] as const;

/** Doors and windows of walls: each by its width and how far it stands from a corner. */
export function OpeningFields({ recipe, change, made }: { recipe: Strip; change: (recipe: Strip) => void; made: MadeOutline }) {
  const { session } = useDesk();
  const openings = recipe.openings ?? [];
  const put = (opening: Opening) => change({ ...recipe, openings: openings.map((other) => (other.id === opening.id ? opening : other)) });
  return (
    <>
      {openings.map((opening, i) => (
        <View key={opening.id}>
          <View style={{ flexDirection: 'row', alignItems: 'center' }}>
            <Words style={{ flex: 1 }}>{`Opening ${i + 1}`}</Words>
            <RoundButton icon="trash" name={`Remove opening ${i + 1}`} size={36} onPress={() => change({ ...recipe, openings: openings.filter(({ id }) => id !== opening.id) })} />
          </View>
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <LengthField label="Width" mm={opening.width} onChange={(width) => put({ ...opening, width })} testID={`opening-width-${i + 1}`} />
            <LengthField signed label="From the corner" mm={opening.distance} onChange={(distance) => put({ ...opening, distance: Math.max(0, distance) })} testID={`opening-distance-${i + 1}`} />
          </View>
          <Choice name={`Which corner opening ${i + 1} is counted from`} value={opening.from} options={FROM} onChange={(from) => put({ ...opening, from })} />
        </View>
      ))}
      <Button mode="outlined" compact onPress={() => session.setTool({ name: 'opening', state: { made: made.id } })} testID="add-opening">Add a door or window</Button>
    </>
  );
}
