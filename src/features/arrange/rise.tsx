import { View } from 'react-native';
import { useDesk, useJob } from '@/bench/use-session';
import { riseOf } from '@/core/derive';
import { changeLayer, type Feature, type Layer } from '@/core/job';
import { useUnits } from '@/features/job/use-units';
import { FigureRow } from '@/ui/figure-row';
import { Choice } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { measuredInWords } from './shared-words';

/** Up to which other level what is drawn on a level rises, as walls do, and by how much. */
export function Rise({ layer, level, levels }: { layer: Layer; level: Feature; levels: readonly Feature[] }) {
  const { jobs } = useDesk();
  const units = useUnits();
  const arranged = useJob(({ derived }) => derived.arranged);
  const rise = riseOf(layer, 'top', arranged);
  const others = levels.filter(({ id }) => id !== level.id);
  const to = others.find(({ id }) => id === layer.risesTo);
  const put = (id: string) => {
    const { risesTo: _before, ...rest } = layer;
    jobs.getState().run(changeLayer(id === '' ? rest : { ...rest, risesTo: id }));
  };
  if (others.length === 0) return null;
  return (
    <View style={{ gap: 4 }} testID={`rise-${layer.name}`}>
      <Words quiet style={{ fontSize: 13, lineHeight: 17 }}>
        {`What is on “${layer.name}”`}
      </Words>
      <Choice
        name={`Up to where what is on ${layer.name} rises`}
        value={to ? to.id : ''}
        options={[['', 'Flat'], ...others.map(({ id, name }) => [id, `Up to ${name}`] as const)]}
        onChange={put}
      />
      {to && rise && rise.value > 0 ? (
        <FigureRow name="High" value={measuredInWords(rise, units)} testID="rise-high" />
      ) : null}
      {to && rise && rise.value <= 0 ? (
        <Words testID="rise-upside-down">
          {`“${to.name}” lies no higher than “${level.name}”, so nothing rises and it leaves flat. Choose a level above it, or type one of the two again.`}
        </Words>
      ) : null}
      {to && !rise ? (
        <Words testID="rise-unknown">
          {`Nothing says how high “${to.name}” lies yet: type its height, or point at it in a view from the side.`}
        </Words>
      ) : null}
    </View>
  );
}
