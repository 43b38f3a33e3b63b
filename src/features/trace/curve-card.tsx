import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import { done, refused, type Result } from '@/core/basics';
import { changeOutline } from '@/core/job';
import type { Chain, Node } from '@/core/outline';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { AngleField } from './make/fields';

const BENDS = [
  ['flow', 'From point to point'],
  ['even', 'Evenly'],
] as const;
const TIGHTEST = 1;
const LOOSEST = -2;

function parseTension(text: string): Result<number> {
  const tension = Number(text.trim().replace(',', '.'));
  return text.trim() !== '' && tension >= LOOSEST && tension <= TIGHTEST
    ? done(tension)
    : refused('tension-not-understood');
}

const hasCurve = ({ segments, closed }: Chain, index: number): boolean =>
  [closed ? (index + segments.length - 1) % segments.length : index - 1, index].some(
    (i) => segments[i]?.kind === 'curve',
  );

/** How curves run through their points: all of them, and the chosen one's own direction and tension. */
export function CurveCard({ chain, node: id }: { chain: Chain; node: string | undefined }) {
  const { jobs } = useDesk();
  const index = chain.nodes.findIndex((other) => other.id === id);
  const node = chain.nodes[index];
  const [text, setText] = useState(String(node?.tension ?? 0));
  if (!chain.segments.some(({ kind }) => kind === 'curve')) return null;
  const change = (to: Partial<Node>) =>
    jobs
      .getState()
      .run(
        changeOutline(
          { ...chain, nodes: chain.nodes.map((other) => (other.id === id ? { ...other, ...to } : other)) },
          'curve-changed',
        ),
      );
  return (
    <Card testID="curve-card">
      <Choice
        named
        name="Bends"
        value={chain.even ? 'even' : 'flow'}
        options={BENDS}
        onChange={(bends) => jobs.getState().run(changeOutline({ ...chain, even: bends === 'even' }, 'curve-changed'))}
      />
      {node && hasCurve(chain, index) ? (
        <>
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <AngleField
              label="Direction here"
              radians={node.direction ?? 0}
              onChange={(direction) => change({ direction, handleIn: undefined, handleOut: undefined })}
              testID="curve-direction"
            />
            <WrittenField
              label="Tension here"
              value={text}
              onChange={setText}
              parse={parseTension}
              onSubmit={(tension) => change({ tension })}
              testID="curve-tension"
            />
          </View>
          <Words quiet style={{ fontSize: 13 }}>
            {node.direction === undefined
              ? 'It finds its own direction until you say one. Tension: 0 as usual, 1 straight, below 0 fuller.'
              : 'It runs in this direction, counted to the left from level.'}
          </Words>
          {node.direction === undefined && node.tension === undefined ? null : (
            <Button
              mode="outlined"
              compact
              onPress={() => change({ direction: undefined, tension: undefined })}
              testID="curve-free">
              Let it find its own way
            </Button>
          )}
        </>
      ) : (
        <Words quiet style={{ fontSize: 13 }}>
          {chain.even
            ? 'No jump in its bend from point to point.'
            : 'Each point leans on its neighbours alone. Choose a point to give it a direction.'}
        </Words>
      )}
    </Card>
  );
}
