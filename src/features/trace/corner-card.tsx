import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import { changeOutline } from '@/core/job';
import type { Chain, Corner } from '@/core/outline';
import { formatLength, parseSize } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

const KINDS = [
  ['fillet', 'Rounded'],
  ['chamfer', 'Cut off'],
] as const;

/** How corners are finished when they are cut: the chosen one, or all of them. The corner itself stays, so that its size can be changed later. */
export function CornerCard({ chain, node }: { chain: Chain; node: string | undefined }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const before = chain.nodes.find(({ id, corner }) => corner && (node === undefined || id === node))?.corner;
  const [kind, setKind] = useState<Corner['kind']>(before?.kind ?? 'fillet');
  const [text, setText] = useState(before ? formatLength(before.size, units) : '');
  const finished = chain.nodes.filter(({ corner }) => corner).length;
  const set = (corner: Corner | undefined, code: string) =>
    jobs.getState().run(
      changeOutline(
        {
          ...chain,
          nodes: chain.nodes.map((each) => (node === undefined || each.id === node ? { ...each, corner } : each)),
        },
        code,
      ),
    );
  return (
    <Card testID="corner-card">
      <Words style={{ fontWeight: '700' }}>{node === undefined ? 'All corners' : 'This corner'}</Words>
      <Choice name="How corners are finished" value={kind} options={KINDS} onChange={setKind} />
      <WrittenField
        label={kind === 'fillet' ? 'Radius' : 'Cut off along each side'}
        value={text}
        onChange={setText}
        parse={(written) => parseSize(written, units.style)}
        onSubmit={({ mm }) => set({ kind, size: mm }, kind === 'fillet' ? 'corners-rounded' : 'corners-cut')}
        testID="corner-size"
      />
      {finished > 0 ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <Words quiet style={{ flex: 1, fontSize: 13 }}>{`${finished} of ${chain.nodes.length} finished.`}</Words>
          <Button compact mode="outlined" onPress={() => set(undefined, 'corners-sharp')} testID="corner-sharp">
            Sharp again
          </Button>
        </View>
      ) : null}
    </Card>
  );
}
