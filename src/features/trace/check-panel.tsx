import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { setShortest } from '@/core/job';
import type { Finding } from '@/core/outline';
import { formatAngle, formatArea, formatLength, parseSize, type Units } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';
import { WorkSlip } from '@/ui/work-slip';
import { WrittenField } from '@/ui/written-field';
import { wordForFault } from '@/ui/words';
import { findMending } from '@/core/derive';
import { newId } from '@/store';
import { goToPlace } from './go-to';
import { useFindings, useMending } from './use-findings';

/** Finds everything that keeps the outlines of the view from being cut; tapping goes there, open ends can be closed. */
export function CheckPanel() {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const job = useJob((state) => state.job);
  const scaled = fitted?.fit.scaled ?? false;
  const limits = useMemo(
    () => ({ shortest: scaled ? job.shortest : 0.5, touching: scaled ? 0.001 : 0.01 }),
    [scaled, job.shortest],
  );
  const { value: findings, ...looking } = useFindings(fitted?.view.plane ?? '', limits);
  const mending = useMending(fitted?.view.id ?? '', limits);
  if (!fitted) return null;
  const heal = (finding: Finding) => {
    const command = findMending(finding, job, { fitted, newId });
    if (command) jobs.getState().run(command);
    else session.say(finding.kind === 'open' ? 'outline-too-short-to-close' : 'not-mended');
  };
  return (
    <>
      <Card>
        {findings ? (
          <Words style={{ fontWeight: '700' }} testID="check-count">
            {findings.length === 0
              ? 'These outlines can be cut.'
              : `${findings.length} ${findings.length === 1 ? 'thing keeps' : 'things keep'} them from being cut.`}
          </Words>
        ) : null}
        <WorkSlip {...looking} doing="Looking through the outlines" testID="checking" />
        <WorkSlip {...mending} doing="Mending" testID="mending" />
        {findings?.some(isMendable) && !mending.isWorking ? (
          <Button mode="contained" compact onPress={mending.again} testID="heal-all">
            Mend all that can be
          </Button>
        ) : null}
        {scaled ? <ShortestField /> : null}
      </Card>
      {findings?.slice(0, MOST_SHOWN).map((finding, i) => (
        <FindingCard
          key={i}
          finding={finding}
          scaled={scaled}
          onGo={() => goToPlace(session, fitted, finding.at)}
          onHeal={() => heal(finding)}
        />
      ))}
      {findings && findings.length > MOST_SHOWN ? (
        <Card>
          <Words quiet>{`and ${findings.length - MOST_SHOWN} more: they show as these are mended.`}</Words>
        </Card>
      ) : null}
    </>
  );
}

/** More cards than this help nobody. */
const MOST_SHOWN = 60;

/** One thing that keeps an outline from being cut: what it is, the way there, and what mends it. */
function FindingCard({
  finding,
  scaled,
  onGo,
  onHeal,
}: {
  finding: Finding;
  scaled: boolean;
  onGo: () => void;
  onHeal: () => void;
}) {
  const units = useUnits();
  return (
    <Card testID={`finding-${finding.kind}`}>
      <Words>{inWords(finding, units, scaled)}</Words>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Button mode="outlined" compact onPress={onGo}>
          Go there
        </Button>
        {isMendable(finding) ? (
          <Button mode="contained" compact onPress={onHeal} testID="heal">
            {mendingIn(finding)}
          </Button>
        ) : null}
      </View>
    </Card>
  );
}

function ShortestField() {
  const { jobs } = useDesk();
  const units = useUnits();
  const shortest = useJob((state) => state.job.shortest);
  const [text, setText] = useState(formatLength(shortest, units));
  return (
    <WrittenField
      label="Shortest piece"
      value={text}
      onChange={setText}
      parse={(written) => parseSize(written, units.style)}
      onSubmit={({ mm }) => jobs.getState().run(setShortest(mm))}
    />
  );
}

const MENDABLE: readonly Finding['kind'][] = ['open', 'doubled', 'short', 'kink'];
const isMendable = (finding: Finding) =>
  MENDABLE.includes(finding.kind) && (finding.kind !== 'open' || finding.partner !== undefined);

function mendingIn(finding: Finding): string {
  if (finding.kind === 'open') return finding.partner?.outline === finding.outline ? 'Close it' : 'Join them';
  return finding.kind === 'kink' ? 'Make it tangent' : finding.kind === 'short' ? 'Leave it out' : 'Take one away';
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
    case 'kink':
      return `A kink of ${formatAngle(finding.turn)} where it was meant to run on smoothly.`;
    case 'sliver':
      return `A sliver of only ${scaled ? formatArea(finding.area, units) : 'a few px²'}, ${size(finding.width)} wide.`;
    case 'fault':
      return `${isCorner(finding.fault) ? 'Left sharp' : 'Drawn straight for now'}: ${wordForFault(finding.fault)}.`;
  }
}
