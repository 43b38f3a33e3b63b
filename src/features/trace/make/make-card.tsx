import { View } from 'react-native';
import type { StandMode } from '@/bench/tools';
import { editingIn } from '@/core/derive';
import { useDesk, useJob } from '@/bench/use-session';
import { letGo, replaceOutline, setAid, together } from '@/core/job';
import { asCircle, standingAlone, type Outline } from '@/core/outline';
import type { FittedView } from '@/core/derive';
import { Card } from '@/ui/card';
import type { IconName } from '@/ui/icon';
import { LedgeButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { newId } from '@/store';
import { askForPlace, firstRecipe, making, type MakeKind } from './made-of';

const MAKES: readonly {
  readonly kind: MakeKind;
  readonly icon: IconName;
  readonly label: string;
  readonly name: string;
}[] = [
  { kind: 'offset', icon: 'offset', label: 'Offset', name: 'A line beside it, at a distance' },
  { kind: 'strip', icon: 'strip', label: 'Strip', name: 'A strip along it, with a thickness' },
  { kind: 'mirrored', icon: 'halves', label: 'Mirror', name: 'Mirror about a guide' },
  { kind: 'rows', icon: 'rows', label: 'Rows', name: 'Copies in rows' },
];

/** What asks for places first. */
const STANDS: readonly {
  readonly mode: StandMode;
  readonly icon: IconName;
  readonly label: string;
  readonly name: string;
  readonly id: string;
}[] = [
  { mode: 'around', icon: 'around', label: 'Around', name: 'Copies around a centre', id: 'make-around' },
  { mode: 'placed', icon: 'place', label: 'Again', name: 'The same part once more, elsewhere', id: 'make-placed' },
  { mode: 'move', icon: 'right', label: 'Move to', name: 'Move by pointing from and to', id: 'stand-move' },
  { mode: 'turn', icon: 'turn', label: 'Turn', name: 'Turn or mirror about a place', id: 'stand-turn' },
  { mode: 'scale', icon: 'resize', label: 'Scale', name: 'Scale about a place', id: 'stand-scale' },
  { mode: 'stretch', icon: 'stretch', label: 'Stretch', name: 'Move the ends in a box', id: 'stand-stretch' },
];

interface MakeCardProps {
  readonly outlines: readonly Outline[];
  readonly of: readonly string[];
  readonly fitted: FittedView;
}

/** What can be made of what is chosen; it follows its sources from then on. */
export function MakeCard({ outlines, of: chosen, fitted }: MakeCardProps) {
  const { jobs, session } = useDesk();
  const job = useJob((state) => state.job);
  // An aid stays one: chosen among outlines, nothing is made of it.
  const real = chosen.filter((id) => outlines.some((outline) => outline.id === id && !outline.aid));
  const of = real.length > 0 ? real : chosen;
  const here = job.guides.filter(({ plane }) => plane === fitted.view.plane);
  const make = (kind: MakeKind) => () => {
    const recipe = firstRecipe(kind, { outlines, of, guides: here });
    if (!recipe) return session.say(kind === 'mirrored' ? 'mirror-needs-guide' : 'combine-needs-two');
    if (!fitted.fit.scaled && kind !== 'mirrored' && kind !== 'combined') return session.say('scale-first');
    const { made, command } = making(recipe, outlines[0]!);
    jobs.getState().run(command);
    session.hold([made.id]);
  };
  return (
    <Card testID="make-card">
      <Words style={{ fontWeight: '700' }}>Make of it</Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {MAKES.map(({ kind, icon, label, name }) => (
          <LedgeButton key={kind} icon={icon} label={label} name={name} onPress={make(kind)} testID={`make-${kind}`} />
        ))}
        {outlines.length > 1 ? (
          <LedgeButton
            icon="combine"
            label="Combine"
            name="Unite, subtract or intersect closed outlines"
            onPress={make('combined')}
            testID="make-combined"
          />
        ) : null}
        {STANDS.map(({ mode, icon, label, name, id }) => (
          <LedgeButton
            key={mode}
            icon={icon}
            label={label}
            name={name}
            onPress={() => askForPlace(session, mode, mode === 'around' || mode === 'placed' ? of : chosen)}
            testID={id}
          />
        ))}
        <AidButton outlines={outlines} of={chosen} />
        {outlines.length === 1 ? <OnlyButtons only={outlines[0]!} fitted={fitted} /> : null}
      </View>
    </Card>
  );
}

function AidButton({ outlines, of }: Omit<MakeCardProps, 'fitted'>) {
  const { jobs } = useDesk();
  const isAid = outlines.every(({ aid }) => aid);
  return (
    <LedgeButton
      icon="guide"
      label="Aid"
      name={isAid ? 'Cut and hand it over again' : 'Keep it as an aid that never leaves in a file'}
      chosen={isAid}
      onPress={() => jobs.getState().run(setAid(of, !isAid))}
      testID="make-aid"
    />
  );
}

/** What can be done to one outline alone. */
function OnlyButtons({ only, fitted }: { only: Outline; fitted: FittedView }) {
  const { jobs, session } = useDesk();
  const { job, derived } = useJob((state) => state);
  const { run } = jobs.getState();
  const editing = editingIn({ fitted, newId });
  const shape = derived.shapes.get(only.id);
  const whole = only.shape === 'chain' && shape ? asCircle(only, shape, editing) : undefined;
  const stand = () => {
    if (!shape) return;
    // What stands in its openings would have no wall any more.
    const fittings = job.outlines.filter(
      (outline) =>
        outline.shape === 'made' && outline.recipe.kind === 'fittings' && outline.recipe.of.includes(only.id),
    );
    const parts = standingAlone(shape.paths, only, editing);
    run(
      together([
        ...fittings.map((outline) =>
          letGo(outline.id, standingAlone(derived.shapes.get(outline.id)?.paths ?? [], outline, editing)),
        ),
        letGo(only.id, parts),
      ]),
    );
    session.hold(parts.map(({ id }) => id));
  };
  return (
    <>
      {whole ? (
        <LedgeButton
          icon="circle"
          label="Whole"
          name="The whole circle of this arc"
          onPress={() => run(replaceOutline(whole.id, [whole], 'circle-completed'))}
          testID="make-whole"
        />
      ) : null}
      {only.shape === 'made' && shape && shape.paths.length > 0 ? (
        <LedgeButton
          icon="unlock"
          label="Let go"
          name="Let it stand by itself, no longer following"
          onPress={stand}
          testID="make-let-go"
        />
      ) : null}
    </>
  );
}
