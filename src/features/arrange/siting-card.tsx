import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { follow } from '@/bench/follow';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { isSitedBy, outlinesToSite, sitedIn, sitedOutlines } from '@/core/derive';
import { addSited, changeSiting, removeSiting } from '@/core/job';
import type { Hold, Siting } from '@/core/outline';
import { useUnits } from '@/features/job/use-units';
import { AngleField, LengthField } from '@/features/trace/make/fields';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { drawingName, holdInWords, lengthsOfEdges, sitedInWords } from './site-words';

/** A drawing that is set here: what is said of it, and what that leaves free. */
export function SitingCard({ siting }: { siting: Siting }) {
  const { jobs } = useDesk();
  const { run } = jobs.getState();
  const change = useChange(siting);
  const units = useUnits();
  const { job, derived } = useJob((state) => state);
  const chosen = useSession(({ tool }) => (tool.name === 'site' ? tool.state.siting : undefined));
  const sited = sitedIn(siting, job, derived);
  const later = outlinesToSite(job, siting.of, siting);
  const name = drawingName(siting.of, job);
  return (
    <Card chosen={chosen === siting.id} testID={`siting-${name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}>
        <Words style={{ flex: 1, fontWeight: '700' }}>{name}</Words>
        <RoundButton
          icon="trash"
          name={`Take ${name} off again`}
          size={40}
          onPress={() => run(removeSiting(siting.id))}
          testID="siting-remove"
        />
      </View>
      <Words quiet style={{ fontSize: 14, lineHeight: 19 }} testID="siting-says">
        {sitedInWords(sited, siting.holds, units).join(' ')}
      </Words>
      {siting.holds.map((hold) => (
        <HoldRow key={hold.id} hold={hold} siting={siting} isLost={sited.lost.includes(hold.id)} />
      ))}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        {sited.turns ? (
          <AngleField
            label="Turned by"
            radians={sited.put.turn}
            onChange={(turn) => change({ put: { ...sited.put, turn } }, 'siting-moved')}
            testID="siting-turn"
          />
        ) : null}
        <LengthField
          label="Overhangs by"
          mm={siting.overhang ?? 0}
          signed
          onChange={(mm) => change({ overhang: Math.max(0, mm) }, 'overhang-set')}
          testID="siting-overhang"
        />
      </View>
      {later.length > 0 ? (
        <Button
          mode="outlined"
          compact
          onPress={() => run(addSited(sitedOutlines(later, siting, newId)))}
          testID="siting-later">
          {`Take ${later.length} more ${later.length === 1 ? 'outline' : 'outlines'} along`}
        </Button>
      ) : null}
    </Card>
  );
}

/** Changes how it is set, and goes after it where it is out of sight then. */
function useChange(siting: Siting) {
  const { jobs, session } = useDesk();
  return (to: Partial<Siting>, code: Parameters<typeof changeSiting>[1]) => {
    jobs.getState().run(changeSiting({ ...siting, ...to }, code));
    const { outlines } = jobs.getState().job;
    follow(
      session,
      outlines.filter((outline) => isSitedBy(siting, outline)).map(({ id }) => id),
    );
  };
}

/** One thing that is said, its figure, and on which side it is. */
function HoldRow({ hold, siting, isLost }: { hold: Hold; siting: Siting; isLost: boolean }) {
  const change = useChange(siting);
  const put = (next: Hold) =>
    change({ holds: siting.holds.map((other) => (other === hold ? next : other)) }, 'hold-changed');
  const remove = () => change({ holds: siting.holds.filter((other) => other !== hold) }, 'hold-removed');
  const { job, derived } = useJob((state) => state);
  const words = holdInWords(hold, lengthsOfEdges(job, derived.shapes, useUnits()));
  return (
    <View style={{ gap: 2 }} testID={`hold-${hold.kind}`}>
      <Words style={{ fontSize: 14, lineHeight: 19 }}>{isLost ? `${words}: gone, or bent` : words}</Words>
      <View style={{ flexDirection: 'row', alignItems: 'flex-start', gap: 4 }}>
        {hold.kind === 'parallel' ? (
          <AngleField
            label="Turned from it by"
            radians={hold.value - wayOf(hold)}
            onChange={(value) => put({ ...hold, value: value + wayOf(hold) })}
            testID="hold-angle"
          />
        ) : (
          <HoldLength hold={hold} put={put} />
        )}
        {hold.kind === 'off' || hold.kind === 'parallel' ? (
          <Button compact onPress={() => put(turnedOver(hold))} testID="hold-other-side">
            {hold.kind === 'off' ? 'Other side' : 'Other way'}
          </Button>
        ) : null}
        <RoundButton icon="close" size={40} name={`Take away: ${words}`} onPress={remove} testID="hold-remove" />
      </View>
    </View>
  );
}

/** An edge runs along another one way or the other: half turns are told by that, and not by a figure. */
const wayOf = ({ value }: Hold): number => Math.PI * Math.round(value / Math.PI);

const turnedOver = (hold: Hold): Hold => ({
  ...hold,
  value: hold.kind === 'off' ? -hold.value : hold.value > 0 ? hold.value - Math.PI : hold.value + Math.PI,
});

/** How far it is, on the side on which it is: nobody types a sign. */
function HoldLength({ hold, put }: { hold: Hold; put: (next: Hold) => void }) {
  const side = hold.kind === 'off' && hold.value < 0 ? -1 : 1;
  const { plusMinus: _before, ...rest } = hold;
  return (
    <LengthField
      label="How far"
      mm={side * hold.value}
      plusMinus={hold.plusMinus}
      signed
      onChange={(mm, plusMinus) =>
        put({ ...rest, value: side * mm, ...(plusMinus === undefined ? {} : { plusMinus }) })
      }
      testID="hold-length"
    />
  );
}
