import { View } from 'react-native';
import { Figures, Words } from './text';

/** A name and its figure, at both ends of a line. */
export function FigureRow({ name, value, testID }: { name: string; value: string; testID: string }) {
  return (
    <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 10 }}>
      <Words quiet>{name}</Words>
      <Figures testID={testID}>{value}</Figures>
    </View>
  );
}
