import { Switch } from 'react-native-paper';
import { View } from 'react-native';
import { useDesk } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { setLook, type View as JobView } from '@/core/job';
import { Card } from '@/ui/card';
import { Choice } from '@/ui/ledge-button';
import { Slider } from '@/ui/slider';
import { Words } from '@/ui/text';

type Tint = NonNullable<JobView['look']['tint']> | 'none';
type Backing = NonNullable<JobView['look']['backing']>;
const TINTS: readonly (readonly [Tint, string])[] = [
  ['none', 'Own colours'],
  ['ink', 'Ink'],
  ['tide', 'Blue'],
  ['hedge', 'Green'],
  ['plum', 'Plum'],
];
const BACKINGS: readonly (readonly [Backing, string])[] = [
  ['bench', 'Bench'],
  ['paper', 'White'],
  ['dark', 'Dark'],
];
/** Darkness from which a place counts as ink, to begin with. */
const USUAL_INK = 0.14;

/** Fade, contrast, grey, ink alone, tint and backing: how the picture is shown. Its pixels stay as they are. */
export function LookCard({ fitted }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  const { view } = fitted;
  const { look } = view;
  const set = (change: Partial<typeof look>) => jobs.getState().run(setLook(view.id, { ...look, ...change }));
  const only = look.ink !== undefined;
  return (
    <>
      <Card>
        <Slider label="Strength" value={look.opacity} min={0} max={1} onChange={(opacity) => set({ opacity })} />
        {only ? (
          <Slider
            label="Ink from"
            value={look.ink ?? USUAL_INK}
            min={0.03}
            max={0.6}
            onChange={(ink) => set({ ink })}
          />
        ) : (
          <Slider label="Contrast" value={look.contrast} min={0} max={3} onChange={(contrast) => set({ contrast })} />
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 18, rowGap: 4 }}>
          <Toggle name="Ink only" value={only} onChange={(on) => set({ ink: on ? USUAL_INK : undefined })} />
          <Toggle name="Grey" value={look.grey} disabled={only} onChange={(grey) => set({ grey })} />
          <Toggle name="Inverted" value={look.invert ?? false} disabled={only} onChange={(invert) => set({ invert })} />
        </View>
      </Card>
      <Card>
        <Words style={{ fontWeight: '700' }}>Colour of what is drawn</Words>
        <Choice
          name="Colour of what is drawn"
          value={look.tint ?? 'none'}
          options={TINTS}
          onChange={(tint) => set({ tint: tint === 'none' ? undefined : tint })}
        />
        <Words style={{ fontWeight: '700' }}>What lies behind it</Words>
        <Choice
          name="What lies behind it"
          value={look.backing ?? 'bench'}
          options={BACKINGS}
          onChange={(backing) => set({ backing })}
        />
      </Card>
    </>
  );
}

interface ToggleProps {
  readonly name: string;
  readonly value: boolean;
  readonly disabled?: boolean;
  readonly onChange: (value: boolean) => void;
}

function Toggle({ name, value, disabled = false, onChange }: ToggleProps) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
      <Words>{name}</Words>
      <Switch value={value} disabled={disabled} onValueChange={onChange} accessibilityLabel={name} />
    </View>
  );
}
