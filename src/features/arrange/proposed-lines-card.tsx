import { useMemo } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import { listProposedLines, type ProposedLine } from '@/core/derive';
import { shareLines, type Job, type LineShown } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { nameForEnd } from '@/ui/feature-words';
import { endInWords, reachesInWords } from './shared-words';

/** What a proposal is called: as the line that there is, or by a name that nothing else has. */
function nameFor({ feature, along, end }: ProposedLine, { features }: Pick<Job, 'features'>): string {
  const own = features.find(({ id }) => id === feature);
  const names = features.map(({ name }) => name);
  return own?.name ?? nameForEnd(along, end, names);
}

const shownAs = (line: ProposedLine, job: Job): LineShown => ({
  id: line.feature ?? newId(),
  name: nameFor(line, job),
  along: line.along,
  seen: line.seen.map((place) => ({ ...place, id: newId() })),
});

/** Where what is drawn ends in several views: lines that they most likely share, to take one by one or all. */
export function ProposedLinesCard() {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const units = useUnits();
  const proposed = useMemo(() => listProposedLines(job, derived), [job, derived]);
  const agreeing = proposed.filter(({ agrees }) => agrees);
  const take = (lines: readonly ProposedLine[]) => run(shareLines(lines.map((line) => shownAs(line, job))));
  const nameOf = (id: string) => job.views.find((view) => view.id === id)?.name ?? '';
  if (proposed.length === 0) return null;
  return (
    <Card testID="lines-proposed">
      <Words>What you drew ends in several views. Where that is the same line of the thing, they can share it.</Words>
      {agreeing.length > 1 ? (
        <Button mode="contained" compact onPress={() => take(agreeing)} testID="take-lines">
          {agreeing.length === proposed.length ? 'Take all of them' : `Take the ${agreeing.length} that agree`}
        </Button>
      ) : null}
      {proposed.map((line) => {
        const name = nameFor(line, job);
        const says = endInWords(line, name, nameOf);
        return (
          <View key={says} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }} testID={`proposed-${name}`}>
            <View style={{ flex: 1 }}>
              <Words>{says}</Words>
              {line.agrees ? null : <Words quiet>{reachesInWords(line, nameOf, units)}</Words>}
            </View>
            <Button
              mode="outlined"
              compact
              onPress={() => take([line])}
              accessibilityLabel={`Take: ${name}`}
              testID="take-line">
              Take
            </Button>
          </View>
        );
      })}
    </Card>
  );
}
