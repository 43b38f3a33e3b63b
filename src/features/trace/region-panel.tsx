import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { useRegions } from '@/bench/regions';
import type { RegionState } from '@/bench/tools';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { findNameOf, findRegionAt, measureRegion, namesIn, type FittedView, type ViewRegion } from '@/core/derive';
import { findUnion, pieceBounds } from '@/core/geometry';
import { addRegion, changeRegion, REGION_KINDS, removeRegion, type NamedRegion, type RegionKind } from '@/core/job';
import type { Region } from '@/core/planar';
import { formatArea, formatLength, formatVolume } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { ColorChoice } from '@/ui/color-choice';
import { FigureRow } from '@/ui/figure-row';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';
import { WorkSlip } from '@/ui/work-slip';
import { WrittenField } from '@/ui/written-field';
import { LengthField, parseName } from './make/fields';

const REGION_WORDS: Readonly<Record<RegionKind, string>> = {
  material: 'Material',
  opening: 'Opening',
  room: 'Room',
  zone: 'Zone',
};
const KINDS = REGION_KINDS.map((kind) => [kind, REGION_WORDS[kind]] as const);
const MOST_LISTED = 40;
/** Smaller areas would be written as nothing. mm² */
const TINY = 0.01;

/** What the outlines of the view shut in: pointed at or chosen from the list, smallest first, named, and said what it is. */
export function RegionPanel({ state }: { state: RegionState }) {
  const { session } = useDesk();
  const fitted = useFitted();
  const { job, derived } = useJob((whole) => whole);
  const { value: regions, ...looking } = useRegions(fitted?.view.plane ?? '');
  if (!fitted || !regions)
    return (
      <Card>
        <WorkSlip {...looking} doing="Looking for regions" testID="regions-work" />
      </Card>
    );
  const chosen = state.at && findRegionAt(regions, state.at);
  const named = namesIn(job, derived, fitted.view.plane);
  return (
    <>
      {chosen ? (
        <ChosenRegion key={chosen.inside.join()} region={chosen} name={findNameOf(chosen, named)} fitted={fitted} />
      ) : null}
      <Card testID="region-list">
        <WorkSlip {...looking} doing="Looking for regions" testID="regions-work" />
        <Words style={{ fontWeight: '700' }}>
          {regions.length === 0
            ? 'Nothing is shut in yet'
            : `${regions.length} ${regions.length === 1 ? 'region' : 'regions'}, smallest first`}
        </Words>
        <Words quiet style={{ fontSize: 14 }}>
          {regions.length === 0
            ? 'Close an outline, or let lines cross until they shut something in.'
            : 'Point at one, or choose it here.'}
        </Words>
        {regions.slice(0, MOST_LISTED).map((region, i) => (
          <RegionRow
            key={i}
            region={region}
            name={findNameOf(region, named)}
            scaled={fitted.fit.scaled}
            onGo={() => {
              session.setTool({ name: 'region', state: { at: region.inside } });
              const box = findUnion(region.around.pieces.map(pieceBounds))!;
              session.goTo(box.min, box.max);
            }}
          />
        ))}
        {regions.length > MOST_LISTED ? (
          <Words
            quiet
            style={{ fontSize: 13 }}>{`and ${regions.length - MOST_LISTED} larger ones: point at them.`}</Words>
        ) : null}
      </Card>
    </>
  );
}

function RegionRow({
  region,
  name,
  scaled,
  onGo,
}: {
  region: Region;
  name: NamedRegion | undefined;
  scaled: boolean;
  onGo: () => void;
}) {
  const units = useUnits();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
      <Words style={{ flex: 1 }}>
        {name ? `${name.name} (${REGION_WORDS[name.kind].toLowerCase()})` : 'Without a name'}
      </Words>
      <Figures style={{ fontSize: 14 }}>
        {!scaled
          ? 'no scale yet'
          : `${region.area < TINY ? 'below ' : ''}${formatArea(Math.max(TINY, region.area), units)}`}
      </Figures>
      <RoundButton icon="seek" name="Go there" size={36} onPress={onGo} />
    </View>
  );
}

interface ChosenRegionProps {
  readonly region: ViewRegion;
  readonly name: NamedRegion | undefined;
  readonly fitted: FittedView;
}

function ChosenRegion({ region, name, fitted }: ChosenRegionProps) {
  const { jobs } = useDesk();
  const run = jobs.getState().run;
  const [text, setText] = useState(name?.name ?? '');
  const [kind, setKind] = useState<RegionKind>(name?.kind ?? 'material');
  // What was said elsewhere (undone, say) stands in the fields at once.
  const [shown, setShown] = useState(name);
  if (shown !== name) {
    setShown(name);
    setText(name?.name ?? '');
    setKind(name?.kind ?? kind);
  }
  const place = { at: region.inside, seen: fitted.fit.toSheet(region.inside) };
  const put = (change: Partial<NamedRegion>) =>
    run(
      name
        ? changeRegion({ ...name, ...place, ...change })
        : addRegion({
            id: newId(),
            plane: fitted.view.plane,
            ...place,
            name: text.trim() || REGION_WORDS[kind],
            kind,
            ...change,
          }),
    );
  return (
    <Card testID="region-card">
      <WrittenField
        label="Name"
        value={text}
        onChange={setText}
        parse={parseName}
        onSubmit={(said) => put({ name: said })}
        testID="region-name"
      />
      <Choice
        name="What it is"
        value={kind}
        options={KINDS}
        onChange={(to) => {
          setKind(to);
          put({ kind: to });
        }}
      />
      <ColorChoice
        name="Colour"
        value={name?.color}
        onChange={(color) => put({ color: color === name?.color ? undefined : color })}
      />
      <RegionFigures region={region} name={name} fitted={fitted} kind={kind} onHeight={(height) => put({ height })} />
      {name ? (
        <Button mode="outlined" compact onPress={() => run(removeRegion(name.id))} testID="region-remove">
          Take the name away
        </Button>
      ) : null}
    </Card>
  );
}

interface RegionFiguresProps extends ChosenRegionProps {
  readonly kind: RegionKind;
  readonly onHeight: (mm: number) => void;
}

/** How large it is, with plus-minus; of a room how much it holds. */
function RegionFigures({ region, name, fitted, kind, onHeight }: RegionFiguresProps) {
  const units = useUnits();
  const scaled = fitted.fit.scaled;
  const { job, derived } = useJob((whole) => whole);
  const {
    area: { sigma },
    around,
  } = useMemo(() => measureRegion(region, { job, derived }), [region, job, derived]);
  return (
    <>
      <FigureRow
        name="Area"
        value={scaled ? formatArea(region.area, units, sigma) : 'no scale yet'}
        testID="region-area"
      />
      <FigureRow
        name="Around it"
        value={scaled ? formatLength(around.value, units, around.sigma) : 'no scale yet'}
        testID="region-perimeter"
      />
      {scaled && (kind === 'room' || name?.height !== undefined) ? (
        <LengthField label="Height" mm={name?.height ?? 2400} onChange={onHeight} testID="region-height" />
      ) : null}
      {scaled && name?.height !== undefined ? (
        <FigureRow
          name="Volume"
          value={formatVolume(region.area * name.height, units, sigma * name.height)}
          testID="region-volume"
        />
      ) : null}
    </>
  );
}
