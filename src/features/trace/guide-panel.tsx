import { useState } from 'react';
import { View } from 'react-native';
import type { GuideState } from '@/bench/tools';
import { useDesk, useFitted, useJob, useSession, type Desk } from '@/bench/use-session';
import { done, refused, type Result } from '@/core/basics';
import { sentGuide } from '@/core/derive';
import { changeGuide, removeGuide } from '@/core/job';
import type { Guide } from '@/core/outline';
import { formatLength, parseLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { AngleField } from './make/fields';
import { useSending } from './use-sending';

const MODES = [
  ['level', 'Level'],
  ['upright', 'Upright'],
  ['angle', 'At an angle'],
  ['two', 'Through two points'],
  ['between', 'Half-way'],
  ['square', 'Square to a line'],
] as const;

/** What to point at next. */
function hintFor({ mode, first, angle }: GuideState): string {
  if (mode === 'two') return 'Point at two places on the guide.';
  if (mode === 'between')
    return first ? 'Point at the other place.' : 'Point at two places: the guide runs half-way between them.';
  if (mode === 'square')
    return angle === undefined ? 'Point at the line it should be square to.' : 'Point at a place on the guide.';
  return mode === 'angle' && angle === undefined ? 'Type the angle first.' : 'Point at a place on the guide.';
}

/** Offsets one after the other, with a semicolon between them. */
function parseOffsets(
  text: string,
  parse: (part: string) => Result<{ readonly mm: number }>,
): Result<readonly number[]> {
  const read = text
    .split(';')
    .filter((part) => part.trim() !== '')
    .map(parse);
  const wrong = read.find((each) => !each.ok);
  if (wrong && !wrong.ok) return wrong;
  return read.length === 0 ? refused('length-empty') : done(read.map((each) => (each.ok ? each.value.mm : 0)));
}

/** What is mirrored about a guide goes along with it: that is said. */
function remove(id: string, { jobs, session }: Desk): void {
  const before = jobs.getState().job.outlines.length;
  jobs.getState().run(removeGuide(id));
  const count = before - jobs.getState().job.outlines.length;
  if (count > 0) session.say('gone-with-guide', { count });
}

/** Sends a guide that runs level or upright to the views that show it too. */
function SendGuide({ guide, number }: { guide: Guide; number: number }) {
  const fitted = useFitted();
  const features = useJob(({ job }) => job.features);
  const send = useSending();
  const sent = fitted && sentGuide(guide, fitted, features);
  if (!send || !sent) return null;
  return (
    <RoundButton
      icon="share"
      name={`Share guide ${number} with the other views`}
      size={36}
      onPress={() => send(sent)}
      testID={`guide-share-${number}`}
    />
  );
}

/** Guides: where they run, a typed offset for the last one, and the list to take them away again. */
export function GuidePanel({ state }: { state: GuideState }) {
  const { session, jobs } = useDesk();
  const units = useUnits();
  const viewId = useSession((current) => current.viewId);
  const allGuides = useJob((current) => current.job.guides);
  const guides = allGuides.filter((guide) => guide.plane === viewId);
  const [text, setText] = useState('');
  return (
    <>
      <Card>
        <Choice
          name="How the guide runs"
          value={state.mode}
          options={MODES}
          onChange={(mode) =>
            session.setTool({ name: 'guide', state: mode === 'angle' ? { mode, angle: Math.PI / 4 } : { mode } })
          }
        />
        <Words quiet>{hintFor(state)}</Words>
        {state.mode === 'angle' ? (
          <AngleField
            label="Angle"
            radians={state.angle ?? Math.PI / 4}
            onChange={(angle) => session.changeTool('guide', { angle })}
            testID="guide-angle"
          />
        ) : null}
        {state.last ? (
          <WrittenField
            label="Stand it aside by (several: 20; 35)"
            value={text}
            onChange={setText}
            parse={(written) => parseOffsets(written, (part) => parseLength(part, units.style))}
            echo={(offsets) => offsets.map((mm) => formatLength(mm, units)).join(' and ')}
            testID="guide-offset"
            onSubmit={(lengths) => {
              session.input({ kind: 'typed', lengths, aim: undefined });
              setText('');
            }}
          />
        ) : null}
      </Card>
      {guides.length > 0 ? (
        <Card>
          {guides.map((guide, i) => (
            <View key={guide.id} style={{ flexDirection: 'row', alignItems: 'center' }}>
              <Words
                style={{
                  flex: 1,
                }}>{`${guide.mirrors ? 'Centre line' : 'Guide'} ${i + 1}${guide.offset ? `, ${formatLength(guide.offset, units)} aside` : ''}`}</Words>
              <SendGuide guide={guide} number={i + 1} />
              <RoundButton
                icon="halves"
                name={`${guide.mirrors ? 'Stop mirroring' : 'Mirror what is drawn'} about guide ${i + 1}`}
                size={36}
                onPress={() => jobs.getState().run(changeGuide({ ...guide, mirrors: !guide.mirrors }))}
                testID={`guide-mirrors-${i + 1}`}
              />
              <RoundButton
                icon="trash"
                name={`Remove guide ${i + 1}`}
                size={36}
                onPress={() => remove(guide.id, { jobs, session })}
              />
            </View>
          ))}
        </Card>
      ) : null}
    </>
  );
}
