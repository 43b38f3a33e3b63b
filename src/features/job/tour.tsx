import { useState } from 'react';
import { View } from 'react-native';
import { useCover, useJob } from '@/bench/use-session';
import type { Derived } from '@/core/derive';
import type { Job } from '@/core/job';
import { Icon } from '@/ui/icon';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import type { StepName } from './step';

interface TourStop {
  /** Where it is done. */
  readonly step: StepName;
  readonly says: string;
  readonly isDone: (job: Job, derived: Derived) => boolean;
}

/** The short guided paths of demo jobs, by the name that the job carries. */
const TOURS: Readonly<Record<string, readonly TourStop[]>> = {
  blade: [
    {
      step: 'fit',
      says: 'Fit: point at the middle of the card’s two short sides and type 85.6.',
      isDone: (job) => job.views.some((view) => view.evidence.some(({ role }) => role === 'use')),
    },
    {
      step: 'fit',
      says: 'Check: point at the strokes 20 and 260 of the rule and type 240.',
      isDone: (job) => job.views.some((view) => view.evidence.some(({ role }) => role === 'check')),
    },
    {
      step: 'trace',
      says: 'Trace: follow the edge of the blade and close it, then its holes.',
      isDone: (job, derived) => [...derived.shapes.values()].some((shape) => shape.closed) && job.outlines.length > 1,
    },
    { step: 'handover', says: 'Hand over: save the file, ready to cut.', isDone: () => false },
  ],
  pond: [
    {
      step: 'fit',
      says: 'Fit, then Match: choose the survey, and point at a corner of the terrace on the sketch, then on the survey.',
      isDone: (job) => job.planes.some(({ liesOn }) => liesOn === 'site'),
    },
    {
      step: 'trace',
      says: 'The sketch lies on the survey. Match more places to see what is left over, then trace the stones.',
      isDone: (job) => job.outlines.length > 0,
    },
  ],
  sources: [
    {
      step: 'sources',
      says: 'Bring one of the files in, or some of your own.',
      isDone: (job) => job.sheets.length > 0 || job.references.length > 0,
    },
    {
      step: 'sources',
      says: 'Cut views out of a sheet, straighten it, clean it: all of it can be taken back.',
      isDone: (job) => job.views.some(({ frame, cleaning, datum }) => frame || cleaning || datum.direction !== 0),
    },
  ],
};

/** The next stop of a demo's path, of the step that is worked on before those of others, until it is put away; `hidden` while there is no room for it. */
export function Tour({ step, hidden }: { step: StepName; hidden: boolean }) {
  const palette = usePalette();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const [away, setAway] = useState(false);
  const stops = TOURS[job.tour ?? ''];
  const left = stops?.filter((stop) => !stop.isDone(job, derived)) ?? [];
  const stop = left.find((other) => other.step === step) ?? left[0];
  const cover = useCover('top');
  if (!stop || away || hidden) return null;
  return (
    <View
      ref={cover}
      style={{
        position: 'absolute',
        left: 8,
        right: 8,
        top: 8,
        maxWidth: 460,
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        paddingLeft: 12,
        borderRadius: 8,
        backgroundColor: palette.paper,
        borderWidth: 1,
        borderColor: palette.straw,
      }}
      testID="tour">
      <Icon name="pencil" color={palette.straw} size={18} />
      <Words
        style={{
          flex: 1,
          fontSize: 13.5,
          lineHeight: 18,
          paddingVertical: 6,
        }}>{`${stops!.indexOf(stop) + 1} of ${stops!.length}. ${stop.says}`}</Words>
      <RoundButton icon="close" name="Put the path away" size={36} onPress={() => setAway(true)} />
    </View>
  );
}
