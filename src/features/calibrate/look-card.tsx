import { View } from 'react-native';
import { Switch } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { setLook } from '@/core/job';
import { Card } from '@/ui/card';
import { Slider } from '@/ui/slider';
import { Words } from '@/ui/text';

/** Fade, contrast and grey: how the picture is shown. Its pixels stay as they are. */
export function LookCard({ fitted }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  const { view } = fitted;
  const { look } = view;
  const set = (change: Partial<typeof look>) => jobs.getState().run(setLook(view.id, { ...look, ...change }));
  return (
    <Card>
      <Slider label="Strength" value={look.opacity} min={0} max={1} onChange={(opacity) => set({ opacity })} />
      <Slider label="Contrast" value={look.contrast} min={0} max={3} onChange={(contrast) => set({ contrast })} />
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <Words style={{ width: 84 }}>Grey</Words>
        <Switch value={look.grey} onValueChange={(grey) => set({ grey })} accessibilityLabel="Grey" />
      </View>
    </Card>
  );
}
