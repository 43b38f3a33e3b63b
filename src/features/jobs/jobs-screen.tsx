import { useRouter } from 'expo-router';
import { useRef, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { Button, Snackbar } from 'react-native-paper';
import { isStorageFull, type Imported, type JobCard, type Outside } from '@/store';
import { usePalette } from '@/ui/palette';
import { Title, Words } from '@/ui/text';
import { sentenceFor, type Detail } from '@/ui/words';
import { JobCardView } from './job-card-view';
import { DEMO_JOBS, useIsKept, useJobActions, useJobCards } from './use-jobs';

/** How long a deleted job can be brought back before it is really gone. */
const UNDO_MS = 8000;

/** What was said last; a new sentence is a new notice, also while the one before is still leaving. */
interface Said {
  readonly words: string;
  readonly at: number;
}

/** A deleted job is hidden at once and really gone only after a while, in which it can be brought back. */
function useDeletion(removeForGood: (id: string) => void) {
  const [deleted, setDeleted] = useState<JobCard>();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const remove = (card: JobCard) => {
    clearTimeout(timer.current);
    if (deleted) removeForGood(deleted.id);
    setDeleted(card);
    timer.current = setTimeout(() => {
      removeForGood(card.id);
      setDeleted(undefined);
    }, UNDO_MS);
  };
  const undoDelete = () => {
    clearTimeout(timer.current);
    setDeleted(undefined);
  };
  return { deleted, remove, undoDelete };
}

/** The first screen: the jobs on this device, new ones, bundles, demos. */
export function JobsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const { data: cards } = useJobCards();
  const actions = useJobActions();
  const isKeptHere = useIsKept();
  const [notice, setNotice] = useState<Said>();
  const say = (code: string, detail: Detail = {}) => setNotice({ words: sentenceFor(code, detail), at: Date.now() });
  /** What an action came to, and that it failed, is said. */
  const told = { onSuccess: (outcome: Outside) => outcome.kind === 'refused' && say(outcome.code), onError: (problem: Error) => say(isStorageFull(problem) ? 'storage-full' : 'storage-failed') };
  const { deleted, remove, undoDelete } = useDeletion((id) => actions.remove.mutate(id, told));
  const open = (id: string) => router.push(`/job/${id}`);
  const taken = (outcome: Imported) => (outcome.kind === 'done' ? open(outcome.id) : say(outcome.code, outcome.detail));
  const shown = (cards ?? []).filter((card) => card.id !== deleted?.id);

  return (
    <View style={{ flex: 1, backgroundColor: palette.bench }}>
      <ScrollView contentContainerStyle={{ padding: 16, gap: 18, maxWidth: 1080, width: '100%', alignSelf: 'center' }} role="main">
        <View style={{ gap: 2, marginTop: 8 }}>
          <Title>Bryony</Title>
          <Words quiet>Pictures of a thing become outlines of true size.</Words>
        </View>
        {isKeptHere ? null : <Words style={{ padding: 12, borderRadius: 10, backgroundColor: palette.leaf }} testID="nothing-kept">{sentenceFor('nothing-kept')}</Words>}
        <Beginnings isOpening={actions.openFile.isPending} onNew={() => actions.create.mutate(nextName(cards ?? []), { onSuccess: open, onError: told.onError })} onFile={(file) => actions.openFile.mutate(file, { onSuccess: taken, onError: told.onError })} />
        {cards && shown.length === 0 ? <Words quiet>No jobs yet. Begin one with your own pictures, or try the demo below.</Words> : null}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14 }} testID="jobs">
          {shown.map((card) => (
            <JobCardView key={card.id} card={card} onOpen={() => open(card.id)} onDelete={() => remove(card)}
              onDuplicate={() => actions.duplicate.mutate(card.id, told)} onRename={(name) => actions.rename.mutate({ id: card.id, name }, told)} />
          ))}
        </View>
        <Demos actions={actions} onTaken={taken} />
      </ScrollView>
      <Snackbar visible={deleted !== undefined} duration={UNDO_MS} onDismiss={() => undefined} action={{ label: 'Bring it back', onPress: undoDelete }}>{`Deleted “${deleted?.name ?? ''}”.`}</Snackbar>
      {notice && !deleted ? <Snackbar key={notice.at} visible duration={9000} onDismiss={() => setNotice(undefined)} action={{ label: 'Close', onPress: () => setNotice(undefined) }}>{notice.words}</Snackbar> : null}
    </View>
  );
}

function nextName(cards: readonly JobCard[]): string {
  const names = new Set(cards.map((card) => card.name));
  for (let i = 1; ; i++) if (!names.has(`Job ${i}`)) return `Job ${i}`;
}

function Demos({ actions, onTaken }: { actions: ReturnType<typeof useJobActions>; onTaken: (outcome: Imported) => void }) {
  const palette = usePalette();
  const { isPending, variables, mutate } = actions.openDemo;
  return (
    <View style={{ gap: 10 }}>
      <Title level={2}>Try it on a demo</Title>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 14 }}>
        {DEMO_JOBS.map((demo) => (
          <View key={demo.name} style={{ width: 340, maxWidth: '100%', backgroundColor: palette.paper, borderRadius: 10, padding: 14, gap: 8, borderWidth: 1, borderColor: palette.rule }}>
            <Words style={{ fontWeight: '700' }}>{demo.title}</Words>
            <Words quiet>{demo.says}</Words>
            <Button mode="outlined" testID={`demo-${demo.name}`} loading={isPending && variables?.name === demo.name}
              onPress={() => mutate(demo, { onSuccess: onTaken })} accessibilityLabel={`Open the demo ${demo.title}`}>Open</Button>
          </View>
        ))}
      </View>
    </View>
  );
}

/** A new job, or one from a bundle. */
function Beginnings({ isOpening, onNew, onFile }: { isOpening: boolean; onNew: () => void; onFile: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
      <Button mode="contained" icon="picture" onPress={onNew} testID="new-job">New job</Button>
      <Button mode="outlined" icon="bundle" onPress={() => input.current?.click()} testID="open-bundle" loading={isOpening}>Open a bundle</Button>
      <input ref={input} type="file" accept=".zip,.bryony" hidden aria-label="Bundle file" data-testid="bundle-file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }} />
    </View>
  );
}
