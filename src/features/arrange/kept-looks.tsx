import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import type { Folding } from '@/core/derive';
import { addLook, changeLook, removeLook, type NamedLook } from '@/core/job';
import { NameField } from '@/features/trace/make/fields';
import { newId } from '@/store';
import { nameInRow } from '@/ui/feature-words';
import { Choice, RoundButton } from '@/ui/ledge-button';

const isSame = (look: NamedLook, { fold, turn, tip }: Folding) =>
  look.fold === fold && look.turn === turn && look.tip === tip;

/** Looks that somebody kept with the job, by name: one tap back to each, and keeping the one of now. */
export function KeptLooks({ folding }: { folding: Folding }) {
  const { jobs, session } = useDesk();
  const { run } = jobs.getState();
  const looks = useJob(({ job }) => job.looks);
  const now = looks.find((look) => isSame(look, folding));
  const keep = () =>
    run(
      addLook({
        id: newId(),
        name: nameInRow(
          'Look',
          looks.map(({ name }) => name),
        ),
        ...folding,
      }),
    );
  return (
    <>
      {looks.length > 0 ? (
        <Choice
          name="Looks that were kept"
          value={now?.id ?? ''}
          options={looks.map(({ id, name }) => [id, name] as const)}
          onChange={(id) => {
            const { fold, turn, tip } = looks.find((look) => look.id === id)!;
            session.setFolding({ fold, turn, tip });
          }}
        />
      ) : null}
      {now ? (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 2 }}>
          <NameField
            label="This look is called"
            name={now.name}
            onChange={(name) => run(changeLook({ ...now, name: name.slice(0, 80) }))}
            testID="look-name"
          />
          <RoundButton
            icon="trash"
            size={40}
            name={`Let go of ${now.name}`}
            onPress={() => run(removeLook(now.id))}
            testID="look-remove"
          />
        </View>
      ) : (
        <Button compact mode="outlined" onPress={keep} testID="keep-look">
          Keep this look
        </Button>
      )}
    </>
  );
}
