import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { CheckOutcome } from '@/core/calibrate';
import type { FittedView } from '@/core/derive';
import { changeEvidence, removeEvidence, type Evidence } from '@/core/job';
import { formatLength, formatPlusMinus, parseSize, type Units, type WrittenLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { RoundButton } from '@/ui/ledge-button';
import { Icon } from '@/ui/icon';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { WrittenField } from '@/ui/written-field';

/** A card for every known length and every check: what was said, what it comes to, and what follows. */
export function EvidenceCards({ fitted }: { fitted: FittedView }) {
  return <>{fitted.view.evidence.map((evidence) => <EvidenceCard key={evidence.id} evidence={evidence} fitted={fitted} />)}</>;
}

function EvidenceCard({ evidence, fitted }: { evidence: Evidence; fitted: FittedView }) {
  const palette = usePalette();
  const { jobs } = useDesk();
  const units = useUnits();
  const [text, setText] = useState(evidence.written);
  const { run } = jobs.getState();
  const { check, guess } = evidence;
  const color = check ? palette.plum : palette.tide;
  const change = (next: Evidence) => run(changeEvidence(fitted.view.id, next));
  const say = ({ mm, plusMinus, guess: guessed }: WrittenLength) => {
    const { plusMinus: _old, ...rest } = evidence;
    change({ ...rest, mm, guess: guessed, written: text, ...(plusMinus === undefined ? {} : { plusMinus }) });
  };
  return (
    <Card testID={check ? 'check-card' : 'length-card'} style={{ paddingTop: 4 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
        <Icon name={check ? 'check' : 'length'} color={color} size={20} />
        <Words style={{ flex: 1, fontWeight: '700', color }}>{check ? 'Check' : guess ? 'Guessed length' : 'Known length'}</Words>
        <Button compact onPress={() => change({ ...evidence, check: !check })}>{check ? 'Use it too' : 'Hold back'}</Button>
        <RoundButton icon="trash" name={`Remove this ${check ? 'check' : 'length'}`} size={36} onPress={() => run(removeEvidence(fitted.view.id, evidence.id))} />
      </View>
      <Words testID="evidence-says" style={{ fontSize: 14, lineHeight: 19 }}>{outcomeOf(evidence, fitted, units)}</Words>
      <WrittenField
        label={check ? 'You said' : 'Length'} value={text} onChange={setText} parse={(written) => parseSize(written, units.style)}
        {...(text === evidence.written ? {} : { echo: ({ mm }: WrittenLength) => `${formatLength(mm, units)}; Enter takes it over` })} onSubmit={say} testID="evidence-field"
      />
    </Card>
  );
}

function outcomeOf(evidence: Evidence, { fit, lengths, checks }: FittedView, units: Units): string {
  const check = checks.find((outcome) => outcome.id === evidence.id);
  if (check) return checkInWords(check, evidence, units);
  const length = lengths.find((outcome) => outcome.id === evidence.id);
  if (!length) return evidence.check ? 'Waits for a scale to be compared with.' : 'Not used: see above.';
  if (fit.diagnosis && lengths.length > 1) {
    const off = length.comesTo.value - evidence.mm;
    const made = `The fit makes it ${formatLength(length.comesTo.value, units, length.comesTo.sigma)}`;
    return Math.abs(off) < length.comesTo.sigma / 2 ? `${made}, as you said.` : `${made}: ${formatLength(Math.abs(off), units)} ${off > 0 ? 'more' : 'less'} than you said.`;
  }
  return `Sets the scale by itself; its two points are good to ${formatPlusMinus(length.comesTo.sigma, units)}.`;
}

/** A check whose own sigma is larger than this share of it would miss an error that matters. */
const WEAK_CHECK = 0.0075;

/** "comes to 240.2 mm ±0.4, you said 240.0 mm: agrees", or how far it is off and what to do. */
function checkInWords({ comesTo, difference, verdict }: CheckOutcome, evidence: Evidence, units: Units): string {
  const start = `Comes to ${formatLength(comesTo.value, units, comesTo.sigma)}, you said ${formatLength(evidence.mm, units)}`;
  if (verdict === 'agrees' && comesTo.sigma < WEAK_CHECK * evidence.mm) return `${start}: agrees.`;
  if (verdict === 'agrees') return `${start}: agrees, though it proves little so far off. “Use it too” narrows the fit.`;
  const percent = Math.abs((100 * difference) / evidence.mm).toFixed(1);
  return `${start}: ${percent} % off. Point at its ends again and measure both sizes once more before you trust the scale.`;
}
