import { View } from 'react-native';
import { Switch } from 'react-native-paper';
import { freedomsIn } from '@/bench/freedoms';
import type { RelateState } from '@/bench/tools';
import { useDesk } from '@/bench/use-session';
import type { Freedom } from '@/core/relate';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { outlinesOf, type Relating } from './relate-actions';

/** Shows what relations leave free, place by place, and says how much that is. */
export function FreeCard({ relating, state }: { relating: Relating; state: RelateState }) {
  const { session } = useDesk();
  if (outlinesOf(relating).length === 0) return null;
  return (
    <Card testID="free-card">
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <Switch
          value={state.free ?? false}
          onValueChange={(free) => session.changeTool('relate', { free })}
          accessibilityLabel="Show what is left free"
          testID="show-free"
        />
        <Words style={{ flex: 1 }}>Show what is left free</Words>
      </View>
      {state.free ? (
        <Words style={{ fontSize: 14 }} testID="free-says">
          {inWords(freedomsIn(relating.job, relating.derived, relating.fitted.view.plane))}
        </Words>
      ) : null}
    </Card>
  );
}

function inWords(freedoms: readonly Freedom[]): string {
  const count = (ways: Freedom['ways']) => freedoms.filter((freedom) => freedom.ways === ways).length;
  const growing = freedoms.filter(({ grows }) => grows).length;
  const places = `Of ${freedoms.length} ${freedoms.length === 1 ? 'place' : 'places'} ${count(2)} can move any way, ${count(1)} along a line, ${count(0)} not at all.`;
  return growing === 0 ? places : `${places} ${growing} ${growing === 1 ? 'circle' : 'circles'} can change in size.`;
}
