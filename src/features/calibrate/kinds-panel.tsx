import { View } from 'react-native';
import type { EvidenceState } from '@/bench/tools';
import { useDesk } from '@/bench/use-session';
import { EVIDENCE_KINDS, type EvidenceKind } from '@/core/job';
import { Card } from '@/ui/card';
import { LedgeButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { EVIDENCE_WORDS } from './kinds';

/** Everything that can be known about a picture besides a length. */
export function KindsPanel({ onChosen, onResolution }: { onChosen: () => void; onResolution: () => void }) {
  const { session } = useDesk();
  const choose =
    (kind: EvidenceKind, from: Partial<EvidenceState> = {}) =>
    () => {
      session.pointAtEvidence(kind, 'use', from);
      onChosen();
    };
  return (
    <Card broad>
      <Words style={{ fontWeight: '700' }}>What else is known?</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
        {EVIDENCE_KINDS.filter((kind) => kind !== 'length').map((kind) => (
          <LedgeButton
            key={kind}
            icon={EVIDENCE_WORDS[kind].icon}
            label={EVIDENCE_WORDS[kind].label}
            name={EVIDENCE_WORDS[kind].title}
            onPress={choose(kind)}
            testID={`kind-${kind}`}
          />
        ))}
        <LedgeButton
          icon={EVIDENCE_WORDS.box.icon}
          label={EVIDENCE_WORDS.box.label}
          name={EVIDENCE_WORDS.box.title}
          onPress={choose('rectangle', { way: 'box', name: 'over all' })}
          testID="kind-box"
        />
        <LedgeButton
          icon="dots"
          label="Dots"
          name="Dots an inch, and the printed ratio"
          onPress={onResolution}
          testID="kind-resolution"
        />
      </View>
    </Card>
  );
}
