import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { EVIDENCE_POINTING, isOpenEnded, type SaidSizes } from '@/bench/tools';
import { useDesk, useSession } from '@/bench/use-session';
import { influenceOf } from '@/core/calibrate';
import { toPiece, type FittedView } from '@/core/derive';
import { changeEvidence, raisePoints, removeEvidence, type Evidence, type EvidenceRole } from '@/core/job';
import { formatLength, parseLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { Icon } from '@/ui/icon';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { useInSight } from '@/ui/use-in-sight';
import { WrittenField } from '@/ui/written-field';
import { Beam } from './beam';
import { outcomeInWords, titleOf } from './evidence-words';
import { EVIDENCE_WORDS } from './kinds';
import { PieceName } from './piece-name';
import { SaidField, useWritten } from './said-fields';

/** A card for every piece of evidence and every check: what was said, what the fit makes of it, and what follows. */
export function EvidenceCards({ fitted }: { fitted: FittedView }) {
  return (
    <>
      {fitted.view.evidence.map((evidence) => (
        <EvidenceCard key={evidence.id} evidence={evidence} fitted={fitted} />
      ))}
    </>
  );
}

/** What a tap makes of a piece: used, held back, switched off, and round again. */
const NEXT_ROLE: Readonly<Record<EvidenceRole, { readonly role: EvidenceRole; readonly label: string }>> = {
  use: { role: 'check', label: 'Hold back' },
  check: { role: 'off', label: 'Off' },
  off: { role: 'use', label: 'Use it' },
};

/** What was found in the picture is found the same again; what has as many points as one likes has its own spread. */
const canPointAgain = ({ kind, role }: Evidence) => role !== 'off' && !isOpenEnded(kind) && kind !== 'rectangle';

/** Changes a piece to what was typed; a plus-minus that is not typed again stays. */
function withSaid({ plusMinus: old, ...rest }: Evidence, { sizes, plusMinus, guess }: SaidSizes): Evidence {
  const kept = plusMinus ?? (guess ? undefined : old);
  return { ...rest, said: sizes, guess, ...(kept === undefined ? {} : { plusMinus: kept }) };
}

interface PieceProps {
  readonly evidence: Evidence;
  readonly fitted: FittedView;
  readonly change: (next: Evidence) => void;
}

function EvidenceCard({ evidence, fitted }: Omit<PieceProps, 'change'>) {
  const { jobs } = useDesk();
  const units = useUnits();
  const chosen = useSession((state) => state.evidence === evidence.id);
  // A piece that is pointed out on the picture brings its card into sight.
  const card = useInSight(chosen);
  const { sizes, optional } = EVIDENCE_POINTING[evidence.kind];
  const start = Object.fromEntries(Object.entries(evidence.said).map(([name, size]) => [name, size!.written]));
  const { written, read, write } = useWritten(evidence.kind, sizes, optional, start, units);
  const change = (next: Evidence) => jobs.getState().run(changeEvidence(fitted.view.id, next));
  const submit = () => read.ok && change(withSaid(evidence, read.value));
  const piece = { evidence, fitted, change };
  return (
    <Card
      innerRef={card}
      testID={evidence.role === 'check' ? 'check-card' : `${evidence.kind}-card`}
      chosen={chosen}
      style={{ paddingTop: 4 }}>
      <PieceHead {...piece} />
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
        <Words testID="evidence-says" style={{ fontSize: 14, lineHeight: 19, flex: 1 }}>
          {outcomeInWords(evidence, fitted, units)}
        </Words>
        <Leftover evidence={evidence} fitted={fitted} />
      </View>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center', flexWrap: 'wrap' }}>
        {sizes.map((name) => (
          <SaidField
            key={name}
            name={name}
            value={written[name] ?? ''}
            units={units}
            onChange={write(name)}
            onSubmit={submit}
            testID={`evidence-${name}-field`}
          />
        ))}
        <View style={sizes.length !== 1 ? { flexDirection: 'row', width: '100%' } : {}}>
          <PieceWays {...piece} />
        </View>
      </View>
      {fitted.sheet.kind === 'photo' ? (
        <Level evidence={evidence} fitted={fitted} onChange={(onTraced) => change({ ...evidence, onTraced })} />
      ) : null}
    </Card>
  );
}

const INK_OF_ROLE = { use: 'tide', check: 'plum', off: 'quiet' } as const;

/** What it is and what it is called, where it is, and away with it. */
function PieceHead({ evidence, fitted, change }: PieceProps) {
  const palette = usePalette();
  const { jobs, session } = useDesk();
  const check = evidence.role === 'check';
  const suspect = fitted.fit.suspects.includes(evidence.id);
  const color = palette[suspect ? 'berry' : INK_OF_ROLE[evidence.role]];
  const title = titleOf(evidence, fitted.view.evidence);
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
      <Icon name={suspect ? 'warn' : check ? 'check' : EVIDENCE_WORDS[evidence.kind].icon} color={color} size={20} />
      <PieceName title={title} name={evidence.name} color={color} onName={(name) => change({ ...evidence, name })} />
      <RoundButton
        icon="eye"
        name={`Show ${title} on the picture`}
        size={36}
        onPress={() => session.showEvidence(evidence.id)}
        testID="show-evidence"
      />
      <RoundButton
        icon="trash"
        name={`Remove ${title}`}
        size={36}
        onPress={() => jobs.getState().run(removeEvidence(fitted.view.id, evidence.id))}
      />
    </View>
  );
}

/** What part it takes in the fit, and pointing at it once more. */
function PieceWays({ evidence, change }: PieceProps) {
  const { session } = useDesk();
  const check = evidence.role === 'check';
  return (
    <>
      <Button compact onPress={() => change({ ...evidence, role: NEXT_ROLE[evidence.role].role })} testID="next-role">
        {NEXT_ROLE[evidence.role].label}
      </Button>
      {check ? (
        <Button compact onPress={() => change({ ...evidence, role: 'use' })}>
          Use it
        </Button>
      ) : null}
      {canPointAgain(evidence) ? (
        <Button
          compact
          onPress={() => session.pointAtEvidence(evidence.kind, check ? 'check' : 'use', { again: evidence.id })}
          testID="point-again">
          Point again
        </Button>
      ) : null}
    </>
  );
}

/** Whether what is known lies beside the thing, on the plane of the fit or so much higher, or on the face that is traced. */
function Level({
  evidence,
  fitted,
  onChange,
}: {
  evidence: Evidence;
  fitted: FittedView;
  onChange: (onTraced: boolean) => void;
}) {
  const choose = (value: 'beside' | 'on') => onChange(value === 'on');
  const height = heightOf(evidence, fitted);
  return (
    <>
      <Choice
        name="Where it lies"
        value={evidence.onTraced ? 'on' : 'beside'}
        options={[
          ['beside', 'Lies beside'],
          ['on', 'On the traced face'],
        ]}
        onChange={choose}
      />
      {evidence.onTraced ? null : (
        <Height key={String(height)} height={height} evidence={evidence.id} view={fitted.view.id} />
      )}
    </>
  );
}

/** How high the points of a piece stand above the plane of the fit, mm; undefined where they lie on it, or not all alike. */
function heightOf({ groups }: Evidence, { view }: FittedView): number | undefined {
  const ends = new Set(groups.flat());
  const [first, ...others] = view.points.filter(({ id }) => ends.has(id)).map(({ height }) => height);
  return others.every((height) => height === first) ? first : undefined;
}

function Height({ height, evidence, view }: { height: number | undefined; evidence: string; view: string }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const [text, setText] = useState(height === undefined ? '' : formatLength(height, units));
  const raise = (mm: number | undefined) => jobs.getState().run(raisePoints(view, evidence, mm));
  return (
    <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-start' }}>
      <WrittenField
        label="Stands higher by"
        value={text}
        onChange={setText}
        parse={(written) => parseLength(written, units.style)}
        echo={({ mm }) => formatLength(mm, units)}
        onSubmit={({ mm }) => raise(mm === 0 ? undefined : mm)}
        testID="evidence-height"
      />
      {height === undefined ? null : (
        <Button compact style={{ marginTop: 4 }} onPress={() => raise(undefined)} testID="evidence-lower">
          Lies flat
        </Button>
      )}
    </View>
  );
}

/** The beam of a piece, and how much of the fit rests on it. */
function Leftover({ evidence, fitted }: { evidence: Evidence; fitted: FittedView }) {
  const { fit, figures, checks, view } = fitted;
  const group = fit.diagnosis?.groups.find((other) => other.group === evidence.id);
  const outside =
    checks.find(({ id }) => id === evidence.id)?.figures ?? (group ? undefined : figures.get(evidence.id));
  const worst = outside
    ?.filter(({ difference }) => difference !== undefined)
    .map(({ difference, sigma }) => difference! / sigma)
    .sort((a, b) => Math.abs(b) - Math.abs(a))[0];
  const deviations = group ? (group.normalized ?? undefined) : worst;
  const influence =
    group && influenceOf(fit, view.evidence.filter(({ role }) => role !== 'off').map(toPiece), evidence.id);
  if (deviations === undefined && influence === undefined) return null;
  return (
    <View style={{ alignItems: 'center' }}>
      {deviations === undefined ? null : <Beam deviations={deviations} />}
      {influence === undefined ? null : (
        <Words quiet style={{ fontSize: 12, lineHeight: 15 }}>{`carries ${Math.round(100 * influence)} %`}</Words>
      )}
    </View>
  );
}
