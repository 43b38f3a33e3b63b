import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { directionFor, type SpanState } from '@/bench/tools';
import { useDesk, useFitted } from '@/bench/use-session';
import { turnView } from '@/core/job';
import { formatAngle, parseAngle } from '@/core/units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

const UPRIGHT = Math.PI / 2;

/** How the edge that was pointed at runs in truth, or by how much the view is to be turned. */
export function LevelCard({ state: { points } }: { state: SpanState }) {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const [text, setText] = useState('');
  if (!fitted) return null;
  const { view } = fitted;
  const [a, b] = points;
  const turnTo = (direction: number) => {
    jobs.getState().run(turnView(view.id, (direction - view.datum.direction) * (view.mirrored ? 1 : -1)));
    session.setTool({ name: 'level', state: { points: [], last: 0 } });
    session.framing.showAll();
  };
  const run = (angle: number, pointed = false) =>
    a && b && turnTo(directionFor([a.at, b.at], angle, { ...view.datum, mirrored: view.mirrored }, pointed));
  const typed = (angle: number) =>
    a && b ? run(angle) : turnTo(view.datum.direction - angle * (view.mirrored ? -1 : 1));
  return (
    <Card chosen testID="level-card">
      <Words style={{ fontWeight: '700' }}>
        {a && b ? 'How does this edge run?' : 'Point along an edge, or type a turn'}
      </Words>
      {a && b ? (
        <View style={{ flexDirection: 'row', gap: 6, flexWrap: 'wrap' }}>
          <Button mode="contained" onPress={() => run(0)} testID="edge-level">
            Level
          </Button>
          <Button mode="contained" onPress={() => run(UPRIGHT)} testID="edge-upright">
            Upright
          </Button>
          <Button mode="outlined" onPress={() => run(UPRIGHT, true)} testID="edge-north">
            It points north
          </Button>
        </View>
      ) : null}
      <WrittenField
        label={a && b ? 'Or at this angle' : 'Turn to the right by'}
        value={text}
        onChange={setText}
        parse={parseAngle}
        echo={formatAngle}
        onSubmit={(angle) => (typed(angle), setText(''))}
        testID="turn-field"
      />
    </Card>
  );
}
