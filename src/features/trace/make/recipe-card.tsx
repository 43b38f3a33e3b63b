import { Pressable, View } from 'react-native';
import { Button } from 'react-native-paper';
import { useDesk, useJob } from '@/bench/use-session';
import { changeRecipe, setAid, together } from '@/core/job';
import type { MadeOutline, Recipe } from '@/core/outline';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { wordForFault } from '@/ui/words';
import { AngleField, CountField, LengthField } from './fields';

const CORNERS = [
  ['round', 'Round'],
  ['mitre', 'Pointed'],
  ['square', 'Square'],
] as const;
const ENDS = [
  ['flat', 'Flat'],
  ['round', 'Round'],
  ['square', 'Beyond'],
] as const;
const JUSTIFIED = [
  ['left', 'To its left'],
  ['middle', 'In the middle'],
  ['right', 'To its right'],
] as const;
const HOW = [
  ['united', 'United'],
  ['subtracted', 'First less the rest'],
  ['intersected', 'What all share'],
] as const;
const NAMES: Readonly<Record<Recipe['kind'], string>> = {
  offset: 'Offset',
  strip: 'Strip',
  fittings: 'In openings',
  combined: 'Combined',
  mirrored: 'Mirrored',
  rows: 'In rows',
  around: 'Around a centre',
  placed: 'The same part again',
  sited: 'Set on this plane',
};

const sourcesInWords = ({ of }: Recipe): string => (of.length === 1 ? 'of one outline' : `of ${of.length} outlines`);

/** What an outline is made by: its values can be changed for as long as it follows its sources. */
export function RecipeCard({ made }: { made: MadeOutline }) {
  const { jobs, session } = useDesk();
  const shape = useJob((state) => state.derived.shapes.get(made.id));
  const palette = usePalette();
  const { recipe } = made;
  const fault = shape?.faults[0]?.fault;
  const change = (next: Recipe) => jobs.getState().run(changeRecipe(made.id, next));
  return (
    <Card testID="recipe-card">
      <View style={{ flexDirection: 'row', justifyContent: 'space-between' }}>
        <Words style={{ fontWeight: '700' }}>{NAMES[recipe.kind]}</Words>
        {recipe.kind === 'sited' ? null : (
          <Pressable
            accessibilityRole="button"
            accessibilityLabel={`${sourcesInWords(recipe)}: choose what it is made of`}
            onPress={() => session.hold(recipe.of)}
            testID="recipe-sources">
            <Words style={{ fontSize: 14, color: palette.hedge, textDecorationLine: 'underline' }}>
              {sourcesInWords(recipe)}
            </Words>
          </Pressable>
        )}
      </View>
      {fault ? (
        <Words
          style={{ color: palette.berry, fontSize: 14 }}
          testID="recipe-fault">{`Nothing is drawn: ${wordForFault(fault)}.`}</Words>
      ) : null}
      <RecipeFields recipe={recipe} change={change} made={made} />
    </Card>
  );
}

interface FieldsProps<R extends Recipe> {
  readonly recipe: R;
  readonly change: (recipe: R) => void;
  readonly made: MadeOutline;
}

function RecipeFields({ recipe, change, made }: FieldsProps<Recipe>) {
  switch (recipe.kind) {
    case 'offset':
      return <OffsetFields recipe={recipe} change={change} made={made} />;
    case 'strip':
      return <StripFields recipe={recipe} change={change} made={made} />;
    case 'fittings':
      return <OpeningsButton name="Change the doors and windows" />;
    case 'combined':
      return (
        <Choice
          name="How they are combined"
          value={recipe.how}
          options={HOW}
          onChange={(how) => change({ ...recipe, how })}
        />
      );
    case 'mirrored':
      return <MirrorFields recipe={recipe} change={change} made={made} />;
    case 'rows':
      return <RowsFields recipe={recipe} change={change} made={made} />;
    case 'around':
      return (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <CountField
            label="In all"
            count={recipe.count}
            onChange={(count) => change({ ...recipe, count })}
            testID="around-count"
          />
          <AngleField
            label="Over"
            radians={recipe.sweep}
            onChange={(sweep) => change({ ...recipe, sweep })}
            testID="around-sweep"
          />
        </View>
      );
    case 'sited':
      return (
        <Words quiet style={{ fontSize: 14, lineHeight: 19 }} testID="recipe-sited">
          It is drawn in another view. How it stands here is said under Arrange, On a site.
        </Words>
      );
    case 'placed':
      return (
        <>
          <AngleField
            label="Turned by"
            radians={recipe.turn}
            onChange={(turn) => change({ ...recipe, turn })}
            testID="placed-turn"
          />
          <Choice
            name="Mirrored or not"
            value={recipe.mirrored ? 'mirrored' : 'same'}
            options={[
              ['same', 'The same'],
              ['mirrored', 'Mirrored'],
            ]}
            onChange={(to) => change({ ...recipe, mirrored: to === 'mirrored' })}
          />
        </>
      );
  }
}

function StripFields({ recipe, change, made }: FieldsProps<Extract<Recipe, { kind: 'strip' }>>) {
  const { openings = [] } = recipe;
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
        <LengthField
          label="Thickness"
          mm={recipe.width}
          onChange={(width) => change({ ...recipe, width })}
          testID="strip-width"
        />
        <PullButton made={made} name="Point at its face" testID="strip-pull" />
      </View>
      <Choice
        name="Where it lies along its line"
        value={recipe.justified}
        options={JUSTIFIED}
        onChange={(justified) => change({ ...recipe, justified })}
      />
      <Choice
        named
        name="Its ends"
        value={recipe.ends}
        options={ENDS}
        onChange={(ends) => change({ ...recipe, ends })}
      />
      <Choice
        named
        name="Its corners"
        value={recipe.corners}
        options={CORNERS}
        onChange={(corners) => change({ ...recipe, corners })}
      />
      <OpeningsButton name={openings.length === 0 ? 'Doors and windows' : `Doors and windows (${openings.length})`} />
    </>
  );
}

/** Takes the tool for what stands in walls in hand. */
function OpeningsButton({ name }: { name: string }) {
  const { session } = useDesk();
  return (
    <Button mode="outlined" compact onPress={() => session.chooseTool('opening')} testID="add-opening">
      {name}
    </Button>
  );
}

function RowsFields({ recipe, change }: FieldsProps<Extract<Recipe, { kind: 'rows' }>>) {
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <CountField
          label="In a row"
          count={recipe.count}
          onChange={(count) => change({ ...recipe, count })}
          testID="rows-count"
        />
        <CountField
          label="Rows"
          count={recipe.rows}
          onChange={(rows) => change({ ...recipe, rows })}
          testID="rows-rows"
        />
      </View>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <LengthField
          signed
          label="Step across"
          mm={recipe.step[0]}
          onChange={(x) => change({ ...recipe, step: [x, recipe.step[1]] })}
          testID="rows-across"
        />
        <LengthField
          signed
          label="Step up"
          mm={recipe.step[1]}
          onChange={(y) => change({ ...recipe, step: [recipe.step[0], y] })}
          testID="rows-up"
        />
      </View>
      {recipe.rows > 1 ? (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <LengthField
            signed
            label="Rows across"
            mm={recipe.rowStep[0]}
            onChange={(x) => change({ ...recipe, rowStep: [x, recipe.rowStep[1]] })}
            testID="rows-row-across"
          />
          <LengthField
            signed
            label="Rows up"
            mm={recipe.rowStep[1]}
            onChange={(y) => change({ ...recipe, rowStep: [recipe.rowStep[0], y] })}
            testID="rows-row-up"
          />
        </View>
      ) : null}
    </>
  );
}

const CLOSED_SIDES = [
  ['out', 'Outside'],
  ['in', 'Inside'],
  ['both', 'Both'],
] as const;
const OPEN_SIDES = [
  ['out', 'Right'],
  ['in', 'Left'],
  ['both', 'Both'],
] as const;

/** Takes in hand how far it lies beside what it follows: the next place that is pointed at says it. */
function PullButton({ made, name, testID }: { made: MadeOutline; name: string; testID: string }) {
  const { session } = useDesk();
  return (
    <Button
      mode="outlined"
      compact
      onPress={() =>
        session.setTool({
          name: 'select',
          state: { outlines: [made.id], several: false, moving: true, grabbed: { kind: 'beside', to: undefined } },
        })
      }
      testID={testID}>
      {name}
    </Button>
  );
}

function OffsetFields({ recipe, change, made }: FieldsProps<Extract<Recipe, { kind: 'offset' }>>) {
  const shapes = useJob((state) => state.derived.shapes);
  const isClosed = recipe.of.every((id) => shapes.get(id)?.closed);
  const side = recipe.both ? 'both' : recipe.by < 0 !== (!isClosed && recipe.otherHand === true) ? 'in' : 'out';
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
        <LengthField
          label="Distance"
          mm={Math.abs(recipe.by)}
          onChange={(mm) => change({ ...recipe, otherHand: undefined, by: side === 'in' ? -mm : mm })}
          testID="offset-by"
        />
        <PullButton made={made} name="Point at where" testID="offset-pull" />
      </View>
      <Choice
        name="Which side"
        value={side}
        options={isClosed ? CLOSED_SIDES : OPEN_SIDES}
        onChange={(to) =>
          change({
            ...recipe,
            otherHand: undefined,
            both: to === 'both',
            by: to === 'in' ? -Math.abs(recipe.by) : Math.abs(recipe.by),
          })
        }
      />
      <Choice
        named
        name="Its corners"
        value={recipe.corners}
        options={CORNERS}
        onChange={(corners) => change({ ...recipe, corners })}
      />
    </>
  );
}

function MirrorFields({ recipe, change, made }: FieldsProps<Extract<Recipe, { kind: 'mirrored' }>>) {
  const { jobs } = useDesk();
  const all = useJob((state) => state.job.guides);
  const guides = all.filter(({ plane }) => plane === made.plane);
  const setJoined = (joined: boolean) =>
    jobs.getState().run(together([changeRecipe(made.id, { ...recipe, joined }), setAid(recipe.of, joined)]));
  return (
    <>
      <Choice
        name="What becomes of it"
        value={recipe.joined ? 'whole' : 'image'}
        options={[
          ['whole', 'One whole outline'],
          ['image', 'Its mirror image'],
        ]}
        onChange={(to) => setJoined(to === 'whole')}
      />
      {guides.length > 1 ? (
        <Choice
          name="Mirrored about"
          value={recipe.guide}
          options={guides.map(({ id }, i) => [id, `Guide ${i + 1}`] as const)}
          onChange={(guide) => change({ ...recipe, guide })}
        />
      ) : null}
    </>
  );
}
