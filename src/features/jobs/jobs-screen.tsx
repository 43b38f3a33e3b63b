import { useRouter } from 'expo-router';
import { useRef, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { Button, Snackbar } from 'react-native-paper';
import { firstFree } from '@/core/basics';
import { beginWith, takeSaidOfBegun } from '@/features/sources/begun-with';
import { useDropAndPaste } from '@/features/sources/use-drop-and-paste';
import { isStorageFull, type Imported, type JobCard, type Outside } from '@/store';
import { usePalette } from '@/ui/palette';
import { Title, Words } from '@/ui/text';
import { sentenceFor, type Detail } from '@/ui/words';
import { Beginnings } from './beginnings';
import { Demos } from './demos';
import type { JobCardActions } from './job-card-view';
import { JobList } from './job-list';
import { nameFor } from './job-name';
import { useBenchAtHand } from './load-job-screen';
import { useIsKept, useJobActions, useJobCards, useLoss, useRoomTaken, type Loss } from './use-jobs';

/** How long a deleted job can be brought back before it is really gone. */
const UNDO_MS = 8000;

/** What was said last; a new sentence is a new notice, also while the one before is still leaving. */
interface Said {
  readonly words: string;
  readonly at: number;
}

/** What a job was begun with may have been refused: it is said where something else can be chosen. */
function saidOfBegun(): Said | undefined {
  const words = takeSaidOfBegun();
  return words === undefined ? undefined : { words, at: Date.now() };
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

const isBundle = ({ name }: File) => /\.(zip|bryony)$/i.test(name);

/** The first screen: what a job begins with, the jobs on this device, demos. */
export function JobsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const { data: cards } = useJobCards();
  useBenchAtHand();
  const actions = useJobActions();
  const isKeptHere = useIsKept();
  const { loss, onRead } = useLoss(cards !== undefined && cards.length > 0);
  const [notice, setNotice] = useState(saidOfBegun);
  const say = (code: string, detail: Detail = {}) => setNotice({ words: sentenceFor(code, detail), at: Date.now() });
  /** What an action came to, and that it failed, is said. */
  const told = {
    onSuccess: (outcome: Outside) => outcome.kind === 'refused' && say(outcome.code),
    onError: (problem: Error) => say(isStorageFull(problem) ? 'storage-full' : 'storage-failed'),
  };
  const { deleted, remove, undoDelete } = useDeletion((id) => actions.remove.mutate(id, told));
  const open = (id: string) => router.push(`/job/${id}`);
  const taken = (outcome: Imported) => (outcome.kind === 'done' ? open(outcome.id) : say(outcome.code, outcome.detail));
  const shown = (cards ?? []).filter((card) => card.id !== deleted?.id);
  const names = new Set(cards?.map(({ name }) => name));
  const openBundle = (file: File) => actions.openFile.mutate(file, { onSuccess: taken, onError: told.onError });
  /** A job of pictures that were chosen, taken, dropped or pasted here; a bundle among them is opened. */
  const begin = (files: readonly File[]) => {
    const [first] = files;
    if (first && isBundle(first)) openBundle(first);
    else if (first)
      actions.create.mutate(nameFor(first, names), {
        onSuccess: (id) => (beginWith(id, files), open(id)),
        onError: told.onError,
      });
  };
  useDropAndPaste(begin);
  const actionsOf = (card: JobCard): JobCardActions => ({
    onOpen: () => open(card.id),
    onDelete: () => remove(card),
    onDuplicate: () => actions.duplicate.mutate(card.id, told),
    onRename: (name) => actions.rename.mutate({ id: card.id, name }, told),
  });

  return (
    <View style={{ flex: 1, backgroundColor: palette.bench }}>
      <ScrollView
        contentContainerStyle={{ padding: 16, gap: 18, maxWidth: 1080, width: '100%', alignSelf: 'center' }}
        role="main">
        <Heading isKept={isKeptHere} />
        {loss ? <LossSaid loss={loss} onRead={onRead} /> : null}
        <Beginnings
          isOpening={actions.openFile.isPending}
          onFiles={begin}
          onBundle={openBundle}
          onStop={actions.stopOpening}
          onNew={() =>
            actions.create.mutate(
              firstFree(names, (count) => `Job ${count}`),
              { onSuccess: open, onError: told.onError },
            )
          }
        />
        {shown.length > 0 ? <JobList cards={shown} actionsOf={actionsOf} /> : null}
        {cards ? (
          <Demos
            small={shown.length > 0}
            opening={actions.openDemo.isPending ? actions.openDemo.variables.name : undefined}
            onOpen={(demo) => actions.openDemo.mutate(demo, { onSuccess: taken })}
          />
        ) : null}
        {shown.length > 0 ? <RoomTaken /> : null}
      </ScrollView>
      <Notices deleted={deleted} onBringBack={undoDelete} said={notice} onRead={() => setNotice(undefined)} />
    </View>
  );
}

interface NoticesProps {
  readonly deleted: JobCard | undefined;
  readonly onBringBack: () => void;
  readonly said: Said | undefined;
  readonly onRead: () => void;
}

/** What was deleted can be brought back; what was said waits for that. */
function Notices({ deleted, onBringBack, said, onRead }: NoticesProps) {
  return (
    <>
      <Snackbar
        visible={deleted !== undefined}
        duration={UNDO_MS}
        onDismiss={() => undefined}
        action={{ label: 'Bring it back', onPress: onBringBack }}>{`Deleted “${deleted?.name ?? ''}”.`}</Snackbar>
      {said && !deleted ? (
        <Snackbar key={said.at} visible duration={9000} onDismiss={onRead} action={{ label: 'Close', onPress: onRead }}>
          {said.words}
        </Snackbar>
      ) : null}
    </>
  );
}

function Heading({ isKept }: { isKept: boolean }) {
  const palette = usePalette();
  return (
    <>
      <View style={{ gap: 2, marginTop: 8 }}>
        <Title>Bryony</Title>
        <Words quiet>
          Pictures of a thing become outlines of true size. Choose a picture, drop one here or paste it: it becomes a
          job.
        </Words>
      </View>
      {isKept ? null : (
        <Words style={{ padding: 12, borderRadius: 10, backgroundColor: palette.leaf }} testID="nothing-kept">
          {sentenceFor('nothing-kept')}
        </Words>
      )}
    </>
  );
}

/** What became of jobs that the browser lost, until it was read. */
function LossSaid({ loss, onRead }: { loss: Loss; onRead: () => void }) {
  const palette = usePalette();
  return (
    <View
      style={{ padding: 12, borderRadius: 10, backgroundColor: palette.leaf, gap: 8, alignItems: 'flex-start' }}
      testID={loss}>
      <Words>{sentenceFor(loss)}</Words>
      <Button mode="outlined" onPress={onRead} testID="loss-read">
        I have read it
      </Button>
    </View>
  );
}

/** How much room jobs take, and how to free it. */
function RoomTaken() {
  const bytes = useRoomTaken();
  if (bytes === undefined || bytes < MEGABYTE) return null;
  return (
    <Words
      quiet
      style={{ fontSize: 13 }}
      testID="room-taken">{`Bryony takes ${Math.round(bytes / MEGABYTE)} MB of this device. To free some, save a job as a bundle where it can stay, and delete it here.`}</Words>
  );
}

const MEGABYTE = 1e6;
