import { View } from 'react-native';
import { useDesk, useJob } from '@/bench/use-session';
import { changeLayer, type Layer } from '@/core/job';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';

/** Where what is on a layer lies, along what its view does not show: as the view says, or at something that views share. Not asked before there is any. */
export function LayerLevel({ layer }: { layer: Layer }) {
  const { jobs } = useDesk();
  const features = useJob(({ job }) => job.features);
  if (features.length === 0) return null;
  const put = (id: string) => {
    const { liesAt: _before, ...rest } = layer;
    jobs.getState().run(changeLayer(id === '' ? rest : { ...rest, liesAt: id }));
  };
  return (
    <View style={{ gap: 4 }}>
      <Words quiet style={{ fontSize: 13, lineHeight: 17 }}>
        Where what is on it lies
      </Words>
      <Choice
        name={`Where what is on ${layer.name} lies`}
        value={layer.liesAt ?? ''}
        options={[['', 'As its view says'], ...features.map(({ id, name }) => [id, name] as const)]}
        onChange={put}
      />
    </View>
  );
}
