import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useJob, useSession } from '@/bench/use-session';
import type { Notice } from '@/bench/session-state';
import { setLocked } from '@/core/job';
import type { Units } from '@/core/units';
import type { BringIn } from '@/features/sources/use-bring-in';
import type { JobState } from '@/store';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { nameOfCommand } from '@/ui/command-words';
import { sentenceFor } from '@/ui/words';
import { useUnits } from './use-units';

const SHOWN_MS = 6000;
/**
 * What was said last: refusals of tools, undone and redone commands, how bringing in goes. At the bench's lower left on a wide screen; on a phone, where the
 * picture has no place to spare, over the views.
 */
export function Notices({ bringIn, wide }: { bringIn: BringIn; wide: boolean }) {
  const units = useUnits();
  const notice = useSession((state) => state.notice);
  const lastDone = useJob((state) => state.lastDone);
  const [gone, setGone] = useState(0);
  const followers = useJob(({ job }) => job.outlines.length);
  const run = useJob((state) => state.run);
  const latest = latestOf(notice, lastDone, followers, units);
  const at = latest?.at ?? 0;
  useEffect(() => {
    const timer = setTimeout(() => setGone(at), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [at]);
  const text = latest && at > gone ? latest.text : undefined;
  return (
    <View
      style={{
        position: 'absolute',
        left: wide ? 8 : 4,
        right: wide ? 64 : 4,
        ...(wide ? { bottom: 8 } : { top: 4 }),
        gap: 6,
        pointerEvents: 'box-none',
        alignItems: 'flex-start',
      }}>
      {bringIn.doing ? <Slip text={bringIn.doing} testID="doing" action="Stop" onAction={bringIn.stop} /> : null}
      {bringIn.said.map((sentence) => (
        <Slip key={sentence} text={sentence} testID="said" onClose={bringIn.hush} />
      ))}
      {text ? (
        <Slip
          text={text}
          testID="notice"
          {...(latest?.lock ? { action: 'Unlock it', onAction: () => run(setLocked(latest.lock!, false)) } : {})}
        />
      ) : null}
    </View>
  );
}

/** Commands that give a view another fit. */
const REFITS: ReadonlySet<string> = new Set([
  'evidence-added',
  'evidence-set',
  'evidence-removed',
  'evidence-moved',
  'model-set',
  'lift-set',
  'points-raised',
  'sheet-kind-set',
]);

/** Whichever was said last; a command that was simply done silences what was said before it. */
function latestOf(
  notice: Notice | undefined,
  lastDone: JobState['lastDone'],
  followers: number,
  units: Units,
): { at: number; text: string | undefined; lock?: string | undefined } | undefined {
  if (notice && notice.at >= (lastDone?.at ?? 0))
    return {
      at: notice.at,
      text: sentenceFor(notice.code, notice.detail),
      lock: notice.code === 'view-is-locked' ? String(notice.detail.id) : undefined,
    };
  if (!lastDone) return undefined;
  if (lastDone.lock)
    return { at: lastDone.at, text: sentenceFor('view-is-locked', lastDone.lock), lock: lastDone.lock.id };
  const name = nameOfCommand(lastDone.name, units);
  const refitted =
    REFITS.has(lastDone.name.code) && followers > 0
      ? `What is drawn follows the new fit (${followers === 1 ? 'one outline' : `${followers} outlines`}). Undo takes both back.`
      : undefined;
  return {
    at: lastDone.at,
    text: {
      done: refitted,
      undone: `Undone: ${name}.`,
      redone: `Done again: ${name}.`,
      refused: `Not done: ${name}. Something in it is longer, larger or more than a job can hold.`,
    }[lastDone.way],
  };
}

function Slip({
  text,
  testID,
  action,
  onAction,
  onClose,
}: {
  text: string;
  testID: string;
  action?: string;
  onAction?: () => void;
  onClose?: () => void;
}) {
  const palette = usePalette();
  return (
    <View
      role="status"
      testID={testID}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 6,
        maxWidth: 480,
        paddingHorizontal: 12,
        paddingVertical: 8,
        borderRadius: 8,
        backgroundColor: palette.ink,
      }}>
      <Words style={{ color: palette.paper, flexShrink: 1 }}>{text}</Words>
      {action && onAction ? (
        <Button compact textColor={palette.paper} onPress={onAction}>
          {action}
        </Button>
      ) : null}
      {onClose ? (
        <View style={{ backgroundColor: palette.paper, borderRadius: 18 }}>
          <RoundButton icon="close" name="Put this away" size={28} onPress={onClose} />
        </View>
      ) : null}
    </View>
  );
}
