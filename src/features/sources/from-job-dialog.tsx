import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { View } from 'react-native';
import { Button, Dialog } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import { bringPart, listMatching, partOfJob, withNewIds, type Job } from '@/core/job';
import { newId, readStored, repository, storage } from '@/store';
import { AskDialog } from '@/ui/ask-dialog';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { Toggle } from '@/ui/toggle';
import { sentenceFor } from '@/ui/words';

/** Brings views of another job on this device into this one, with all that is drawn on them. */
export function FromJobDialog({ onLeave }: { onLeave: () => void }) {
  const palette = usePalette();
  const { jobs, session } = useDesk();
  const here = useJob(({ job }) => job);
  const cards = useQuery({ queryKey: ['jobs'], queryFn: () => repository.listCards() });
  const open = useMutation({ mutationFn: (id: string) => readStored(id, { repository, storage }) });
  const bring = (part: Job) => {
    const brought = withNewIds(part, newId);
    jobs.getState().run(bringPart(brought));
    const [first] = brought.views;
    if (first && jobs.getState().job.views.some(({ id }) => id === first.id)) session.chooseView(first.id);
    onLeave();
  };
  const others = (cards.data ?? []).filter(({ id }) => id !== here.id);
  const isGone = open.isError || (open.isSuccess && !open.data);
  return (
    <AskDialog title="From another job" onLeave={onLeave} testID="from-job-dialog">
      {open.data ? (
        <ViewsOf job={open.data} here={here} onBring={bring} onLeave={onLeave} />
      ) : (
        <>
          <Dialog.ScrollArea style={{ maxHeight: 360, paddingVertical: 8, gap: 6 }}>
            {cards.isSuccess && others.length === 0 ? (
              <Words>There is no other job on this device. A bundle that is opened from the first screen is one.</Words>
            ) : null}
            {others.map(({ id, name }) => (
              <Button
                key={id}
                mode="outlined"
                style={{ marginVertical: 3 }}
                loading={open.isPending && open.variables === id}
                disabled={open.isPending}
                onPress={() => open.mutate(id)}
                testID={`from-job-${name}`}>
                {name}
              </Button>
            ))}
            {isGone ? (
              <Words style={{ color: palette.berry }} testID="from-job-says">
                {sentenceFor('job-not-brought')}
              </Words>
            ) : null}
          </Dialog.ScrollArea>
          <Dialog.Actions>
            <Button onPress={onLeave}>Close</Button>
          </Dialog.Actions>
        </>
      )}
    </AskDialog>
  );
}

interface ViewsOfProps {
  readonly job: Job;
  readonly here: Job;
  onBring(part: Job): void;
  onLeave(): void;
}

/** Which of its views are brought in, and by what they will stand here. */
function ViewsOf({ job, here, onBring, onLeave }: ViewsOfProps) {
  const [left, leave] = useState<readonly string[]>([]);
  const chosen = job.views.map(({ id }) => id).filter((id) => !left.includes(id));
  const part = partOfJob(job, chosen);
  const matching = listMatching(here, part).map(([own]) => own.name);
  return (
    <>
      <Dialog.ScrollArea style={{ maxHeight: 360, paddingVertical: 8 }}>
        <Words>{`What comes in of “${job.name}”, with all that is known of it and drawn on it:`}</Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6, marginVertical: 8 }}>
          {job.views.map(({ id, name }) => (
            <Toggle
              key={id}
              label={name}
              name={`${name} comes in`}
              icons={{ on: 'tick', off: 'minus' }}
              isOn={!left.includes(id)}
              onPress={() => leave(left.includes(id) ? left.filter((other) => other !== id) : [...left, id])}
              testID={`bring-${name}`}
            />
          ))}
        </View>
        <Words testID="from-job-matching">{standsInWords(matching, part)}</Words>
      </Dialog.ScrollArea>
      <Dialog.Actions>
        <Button onPress={onLeave}>Close</Button>
        <Button mode="contained" disabled={chosen.length === 0} onPress={() => onBring(part)} testID="from-job-bring">
          {chosen.length === 1 ? 'Bring it in' : `Bring ${chosen.length} in`}
        </Button>
      </Dialog.Actions>
    </>
  );
}

function standsInWords(matching: readonly string[], { features }: Pick<Job, 'features'>): string {
  if (matching.length > 0) return `It stands here by what both jobs name: ${matching.join(', ')}.`;
  return features.length > 0
    ? 'Nothing that both jobs show has the same name, so its zero is taken to be the zero here. Give a shared line the same name in both to have it stand by that.'
    : 'It shows no shared line or place yet: it comes in by itself.';
}
