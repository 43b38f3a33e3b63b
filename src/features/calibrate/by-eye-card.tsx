import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { lookedFromIn, type ByEyeState } from '@/bench/tools';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { moveByEye, removeByEye, type StoodByEye } from '@/core/job';
import { THINGS_BY_EYE, type LookedFrom } from '@/core/shelf';
import { AngleField } from '@/features/trace/make/fields';
import { BY_EYE_WORDS, LOOKED_FROM_WORDS } from '@/ui/by-eye-words';
import { Card } from '@/ui/card';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';

const THINGS = THINGS_BY_EYE.map((thing) => [thing, BY_EYE_WORDS[thing]] as const);
const FROM = (['standing', 'above'] as const).map((from) => [from, LOOKED_FROM_WORDS[from]] as const);

/** Things that are stood in a view to judge by eye whether its scale can be right. */
export function ByEyeCards({ fitted }: { fitted: FittedView }) {
  const { session } = useDesk();
  const tool = useSession((state) => state.tool);
  const here = useJob(({ job }) => job.byEye).filter(({ plane }) => plane === fitted.view.plane);
  if (tool.name !== 'byEye') return null;
  const set = (change: Partial<ByEyeState>) => session.setTool({ name: 'byEye', state: { ...tool.state, ...change } });
  const chosen = here.find(({ id }) => id === tool.state.chosen);
  if (!fitted.fit.scaled)
    return (
      <Card testID="by-eye">
        <Words>Say a size first: then a door leaf or a chair can be stood here at true size.</Words>
      </Card>
    );
  return (
    <>
      {chosen ? (
        <StoodCard stood={chosen} onAnother={() => set({ chosen: undefined })} />
      ) : (
        <Card testID="by-eye" broad>
          <Words>Stand something there that everybody knows. It is never measured with, and never leaves.</Words>
          <Choice
            name="What is stood there"
            value={tool.state.thing}
            options={THINGS}
            onChange={(thing) => set({ thing })}
          />
          <Choice
            name="From where it is seen"
            value={tool.state.from ?? lookedFromIn({ fitted })}
            options={FROM}
            onChange={(from: LookedFrom) => set({ from })}
          />
        </Card>
      )}
      {here
        .filter((stood) => stood !== chosen)
        .map((stood) => (
          <Card key={stood.id} testID={`stood-${stood.thing}`}>
            <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
              <Words style={{ flex: 1 }}>{BY_EYE_WORDS[stood.thing]}</Words>
              <Button compact onPress={() => set({ chosen: stood.id })}>
                Choose it
              </Button>
            </View>
          </Card>
        ))}
    </>
  );
}

/** What was chosen: it goes where it is pointed. */
function StoodCard({ stood, onAnother }: { stood: StoodByEye; onAnother: () => void }) {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const name = BY_EYE_WORDS[stood.thing];
  return (
    <Card testID="by-eye-chosen" chosen>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <Words style={{ flex: 1, fontWeight: '700' }}>{name}</Words>
        <RoundButton
          icon="trash"
          size={40}
          name={`Take the ${name.toLowerCase()} away`}
          onPress={() => (run(removeByEye(stood.id)), onAnother())}
          testID="by-eye-remove"
        />
      </View>
      <Words quiet>Point at where else it stands.</Words>
      <Choice
        name="From where it is seen"
        value={stood.from}
        options={FROM}
        onChange={(from: LookedFrom) => run(moveByEye({ ...stood, from }))}
      />
      <AngleField
        label="Turned by"
        radians={stood.turn}
        onChange={(turn) => run(moveByEye({ ...stood, turn }))}
        testID="by-eye-turn"
      />
      <Button compact mode="outlined" onPress={onAnother} testID="by-eye-another">
        Something else
      </Button>
    </Card>
  );
}
