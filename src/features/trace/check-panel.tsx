import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { setShortest } from '@/core/job';
import { checkShapes, type Finding } from '@/core/outline';
import { formatLength, parseSize, type Units } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';
import { wordForFault } from '@/ui/words';
import { findHealing } from './edit-actions';
import { goToPlace } from './go-to';

/** Finds everything that keeps the outlines of the view from being cut; tapping goes there, open ends can be closed. */
export function CheckPanel() {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const job = useJob((state) => state.job);
  const derived = useJob((state) => state.derived);
  const units = useUnits();
  const scaled = fitted?.fit.scaled ?? false;
  const findings = useMemo(() => {
    const shapes = job.outlines.filter((outline) => outline.view === fitted?.view.id).flatMap((outline) => derived.shapes.get(outline.id) ?? []);
    return checkShapes(shapes, { shortest: scaled ? job.shortest : 0.5, touching: scaled ? 0.001 : 0.01 });
  }, [job.outlines, job.shortest, derived, fitted, scaled]);
  if (!fitted) return null;
  const heal = (finding: Finding) => {
    const command = finding.kind === 'open' ? findHealing(finding, job, fitted) : undefined;
    if (command) jobs.getState().run(command);
    else session.say('outline-too-short-to-close');
  };
  return (
    <>
      <Card width={300}>
        <Words style={{ fontWeight: '700' }} testID="check-count">{findings.length === 0 ? 'Nothing keeps these outlines from being cut.' : `${findings.length} ${findings.length === 1 ? 'thing keeps' : 'things keep'} them from being cut.`}</Words>
        {scaled ? <ShortestField /> : null}
      </Card>
      {findings.map((finding, i) => (
        <Card key={i} width={280} testID={`finding-${finding.kind}`}>
          <Words>{inWords(finding, units, scaled)}</Words>
          <View style={{ flexDirection: 'row', gap: 8 }}>
            <Button mode="outlined" compact onPress={() => goToPlace(session, fitted, finding.at)}>Go there</Button>
            {finding.kind === 'open' && finding.partner ? <Button mode="contained" compact onPress={() => heal(finding)} testID="heal">{finding.partner.outline === finding.outline ? 'Close it' : 'Join them'}</Button> : null}
          </View>
        </Card>
      ))}
    </>
  );
}

function ShortestField() {
  const { jobs } = useDesk();
  const units = useUnits();
  const shortest = useJob((state) => state.job.shortest);
  const [text, setText] = useState(formatLength(shortest, units));
  return <WrittenField label="Shortest piece" value={text} onChange={setText} parse={(written) => parseSize(written, units.style)} onSubmit={({ mm }) => jobs.getState().run(setShortest(mm))} />;
}

const isCorner = (fault: string) => fault.startsWith('corner-');

function inWords(finding: Finding, units: Units, scaled: boolean): string {
  const size = (value: number) => (scaled ? formatLength(value, units) : `${value.toFixed(1)} px`);
  switch (finding.kind) {
    case 'open':
      return finding.partner ? `Open end; ${size(finding.gap)} to the nearest other end.` : 'Open end.';
    case 'crossing':
      return 'The outline crosses itself here.';
    case 'doubled':
      return `Two pieces lie on each other, ${size(finding.size)} long.`;
    case 'short':
      return `A piece of only ${size(finding.size)}.`;
    case 'fault':
      return `${isCorner(finding.fault) ? 'Left sharp' : 'Drawn straight for now'}: ${wordForFault(finding.fault)}.`;
  }
}
