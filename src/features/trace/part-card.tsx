import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import { done } from '@/core/basics';
import { countPart, type Count, type FittedView } from '@/core/derive';
import { addPart, changePart, removePart, type Part } from '@/core/job';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { FigureRow } from '@/ui/figure-row';
import { LengthField, NameField } from './make/fields';

const parseMaterial = (text: string) => done(text.trim().slice(0, 200));

export function countInWords({ plain, mirrored }: Count): string {
  return mirrored === 0 ? String(plain) : `${plain + mirrored}, ${mirrored} of them mirrored`;
}

/** What is chosen as one part: its name, what it is made of, how thick, and how often it stands in the drawing. */
export function PartCard({ of, fitted }: { of: readonly string[]; fitted: FittedView }) {
  const { jobs } = useDesk();
  const job = useJob((state) => state.job);
  const run = jobs.getState().run;
  const part = job.parts.find((other) => other.of.length === of.length && other.of.every((id) => of.includes(id)));
  const put = (change: Partial<Part>) =>
    run(
      part
        ? changePart({ ...part, ...change })
        : addPart({ id: newId(), plane: fitted.view.plane, of, name: 'Part', ...change }),
    );
  return (
    <Card testID="part-card">
      <NameField
        label="Name of this part"
        name={part?.name ?? ''}
        onChange={(name) => put({ name })}
        testID="part-name"
      />
      {part ? (
        <>
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <NameField
              label="Material"
              name={part.material ?? ''}
              onChange={(material) => put({ material })}
              parse={parseMaterial}
              testID="part-material"
            />
            <LengthField
              label="Thickness"
              mm={part.thickness ?? 0}
              onChange={(thickness) => put({ thickness })}
              testID="part-thickness"
            />
          </View>
          <FigureRow name="How many" value={countInWords(countPart(part, job.outlines))} testID="part-count" />
          <Button mode="outlined" compact onPress={() => run(removePart(part.id))} testID="part-remove">
            No part of its own
          </Button>
        </>
      ) : null}
    </Card>
  );
}
