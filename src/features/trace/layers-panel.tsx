import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { useDesk, useJob, useSession } from '@/bench/use-session';
import { addLayer, changeLayer, removeLayer, type Layer } from '@/core/job';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { ColorChoice, INK_COLORS } from '@/ui/color-choice';
import { RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { LayerLevel } from './layer-level';

/** The layers: name, colour, shown, locked, and which one new outlines go to. */
export function LayersPanel() {
  const { jobs } = useDesk();
  const layers = useJob((state) => state.job.layers);
  const outlines = useJob((state) => state.job.outlines);
  const add = () => {
    const color = INK_COLORS[layers.length % INK_COLORS.length]!;
    jobs.getState().run(addLayer({ id: newId(), name: `Layer ${layers.length + 1}`, color, show: true, lock: false }));
  };
  return (
    <>
      {layers.map((layer) => (
        <LayerCard
          key={layer.id}
          layer={layer}
          count={outlines.filter((outline) => outline.layer === layer.id).length}
          only={layers.length === 1}
        />
      ))}
      <Card>
        <Button mode="outlined" icon="plus" onPress={add} testID="add-layer">
          Add layer
        </Button>
      </Card>
    </>
  );
}

function LayerCard({ layer, count, only }: { layer: Layer; count: number; only: boolean }) {
  const palette = usePalette();
  const { jobs, session } = useDesk();
  const current = useSession((state) => state.layer) === layer.id;
  const [name, setName] = useState(layer.name);
  const { run } = jobs.getState();
  const change = (part: Partial<Layer>) => run(changeLayer({ ...layer, ...part }));
  const rename = () =>
    name.trim() && name.trim() !== layer.name ? change({ name: name.trim() }) : setName(layer.name);
  return (
    <Card chosen={current} testID={`layer-card-${layer.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 2 }}>
        <TextInput
          mode="outlined"
          dense
          label="Layer"
          accessibilityLabel={`Name of ${layer.name}`}
          value={name}
          onChangeText={setName}
          onBlur={rename}
          onSubmitEditing={rename}
          style={{ flex: 1, height: 42, backgroundColor: palette.paper }}
        />
        <RoundButton
          icon={layer.show ? 'eye' : 'hide'}
          name={layer.show ? `Hide ${layer.name}` : `Show ${layer.name}`}
          size={40}
          onPress={() => change({ show: !layer.show })}
        />
        <RoundButton
          icon={layer.lock ? 'lock' : 'unlock'}
          name={layer.lock ? `Unlock ${layer.name}` : `Lock ${layer.name}`}
          size={40}
          onPress={() => change({ lock: !layer.lock })}
        />
        <RoundButton
          icon="trash"
          name={`Remove ${layer.name}`}
          size={40}
          disabled={only}
          onPress={() => run(removeLayer(layer.id))}
        />
      </View>
      <ColorChoice name={`Colour of ${layer.name}`} value={layer.color} onChange={(color) => change({ color })} />
      <LayerLevel layer={layer} />
      <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
        <Words quiet>{count === 1 ? '1 outline' : `${count} outlines`}</Words>
        <Button mode={current ? 'contained' : 'text'} compact onPress={() => session.setLayer(layer.id)}>
          {current ? 'Drawn on' : 'Draw on it'}
        </Button>
      </View>
    </Card>
  );
}
