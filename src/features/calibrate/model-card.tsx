import { View } from 'react-native';
import { Chip } from 'react-native-paper';
import { useDesk } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import { setModel, type View as JobView } from '@/core/job';
import { Card } from '@/ui/card';
import { Words } from '@/ui/text';

const MODELS: readonly (readonly [JobView['model'], string, string])[] = [
  [
    'auto',
    'What it may suffer from',
    'Everything this kind of picture may suffer from is in the fit; what your sizes do not show stays in the plus-minus.',
  ],
  ['similarity', 'One scale', 'The picture is taken to be true to shape. Nothing else is allowed for.'],
  ['two-scale', 'Two scales', 'Stretched along or across the sheet, and nothing else.'],
  ['affine', 'Two scales and skew', 'Stretched and sheared, as a copier does it.'],
  [
    'projective',
    'Slanted',
    'Any flat thing from any side, without a camera: eight freedoms that your evidence has to tell.',
  ],
  ['camera', 'Slanted, by a camera', 'A flat thing through a lens with square pixels: heights are corrected too.'],
];
const LENSES: readonly (readonly [JobView['lens'], string])[] = [
  ['auto', 'May bow'],
  ['none', 'True'],
  ['k1', 'Bows evenly'],
  ['k1k2', 'Bows, and more at the rim'],
];

/** Which family of maps is fitted. Chosen by hand it has no assumptions: the evidence has to tell everything. */
export function ModelCard({ fitted }: { fitted: FittedView }) {
  const { jobs } = useDesk();
  const { view } = fitted;
  const set = (model: JobView['model'], lens: JobView['lens']) => jobs.getState().run(setModel(view.id, model, lens));
  return (
    <>
      <Card>
        <Words style={{ fontWeight: '700' }}>What may be wrong with the picture?</Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
          {MODELS.map(([model, label]) => (
            <Chip
              key={model}
              compact
              selected={view.model === model}
              showSelectedCheck={false}
              mode={view.model === model ? 'flat' : 'outlined'}
              onPress={() => set(model, model === 'auto' ? 'auto' : view.lens === 'auto' ? 'none' : view.lens)}
              testID={`model-${model}`}>
              {label}
            </Chip>
          ))}
        </View>
        <Words quiet style={{ fontSize: 13.5, lineHeight: 18 }}>
          {MODELS.find(([model]) => model === view.model)![2]}
        </Words>
      </Card>
      <Card>
        <Words style={{ fontWeight: '700' }}>And with the lens?</Words>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
          {LENSES.map(([lens, label]) => (
            <Chip
              key={lens}
              compact
              selected={view.lens === lens}
              showSelectedCheck={false}
              mode={view.lens === lens ? 'flat' : 'outlined'}
              onPress={() => set(view.model, lens)}
              testID={`lens-${lens}`}>
              {label}
            </Chip>
          ))}
        </View>
      </Card>
    </>
  );
}
