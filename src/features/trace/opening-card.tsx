import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { asKind } from '@/bench/tools';
import { useJob } from '@/bench/use-session';
import { handOf, riseOf, type OpeningKind, type OpeningRow } from '@/core/derive';
import { pieceLength } from '@/core/geometry';
import { clearWidth, countedFromOther, segmentOf, type Chain, type Fill, type Opening } from '@/core/outline';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { Card } from '@/ui/card';
import { FigureRow } from '@/ui/figure-row';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Words } from '@/ui/text';
import { useInSight } from '@/ui/use-in-sight';
import { AngleField, LengthField, NameField } from './make/fields';
import { ReadElsewhere } from './read-opening';

export const OPENING_KINDS = [
  ['door', 'Door'],
  ['window', 'Window'],
  ['gap', 'Gap'],
] as const satisfies readonly (readonly [OpeningKind, string])[];
const LEAVES = [
  ['1', 'One leaf'],
  ['2', 'Two leaves'],
] as const;
const HANGS = [
  ['hung', 'Turns'],
  ['shut', 'Stays shut, or slides'],
] as const;
const QUARTER = Math.PI / 2;

interface OpeningCardProps {
  readonly row: OpeningRow;
  readonly change: (opening: Opening) => void;
  readonly remove: () => void;
}

/** An opening: where it is and how wide, from where to where it reaches above the floor, and what stands in it. */
export function OpeningCard({ row, change, remove }: OpeningCardProps) {
  const { opening, kind, mark, line } = row;
  const card = useInSight(true);
  const put = (part: Partial<Opening>) => change({ ...opening, ...part });
  return (
    <>
      <Card innerRef={card} testID="opening-card">
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <NameField label="Mark" name={mark} onChange={(name) => put({ name })} testID="opening-name" />
          <RoundButton icon="trash" name={`Remove ${mark}`} onPress={remove} testID="opening-remove" />
        </View>
        <Choice name="What it is" value={kind} options={OPENING_KINDS} onChange={(to) => change(asKind(opening, to))} />
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <LengthField label="Width" mm={opening.width} onChange={(width) => put({ width })} testID="opening-width" />
          <LengthField
            signed
            label="From the corner"
            mm={opening.distance}
            onChange={(distance) => put({ distance: Math.max(0, distance) })}
            testID="opening-distance"
          />
        </View>
        <PlaceInWall opening={opening} line={line} onCount={change} />
        <HeightFields opening={opening} put={put} />
        <OverItsWall opening={opening} layer={row.wall.layer} />
      </Card>
      {opening.read ? <ReadElsewhere row={row} /> : null}
      {opening.fill ? <FillCard opening={opening} fill={opening.fill} put={(fill) => put({ fill })} /> : null}
    </>
  );
}

/** Which corner it is counted from, and whether its wall is long enough for it. */
function PlaceInWall({
  opening,
  line,
  onCount,
}: {
  opening: Opening;
  line: Chain | undefined;
  onCount: (opening: Opening) => void;
}) {
  const segment = line && segmentOf(opening, line);
  const piece = useJob(({ derived }) =>
    line && segment !== undefined ? derived.shapes.get(line.id)?.pieces[segment] : undefined,
  );
  if (!line || !piece)
    return (
      <Words style={{ fontSize: 14 }} testID="opening-lost">
        The corner that it is counted from is gone, so it is not drawn. Remove it and point at its wall again.
      </Words>
    );
  const length = pieceLength(piece);
  return (
    <>
      <Button
        mode="outlined"
        compact
        onPress={() => onCount(countedFromOther(opening, line, length))}
        testID="opening-other-corner">
        Count from the other corner
      </Button>
      {opening.distance + opening.width > length ? (
        <Words style={{ fontSize: 14 }} testID="opening-too-long">
          It reaches past the end of its wall, which is where it ends.
        </Words>
      ) : null}
    </>
  );
}

function HeightFields({
  opening: { sill = 0, head },
  put,
}: {
  opening: Opening;
  put: (part: Partial<Opening>) => void;
}) {
  const units = useUnits();
  return (
    <>
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <LengthField
          signed
          label="Sill above floor"
          mm={sill}
          onChange={(mm) => put({ sill: Math.max(0, mm) })}
          testID="opening-sill"
        />
        <LengthField label="Head above floor" mm={head} onChange={(mm) => put({ head: mm })} testID="opening-head" />
      </View>
      {head === undefined ? null : head > sill ? (
        <FigureRow name="Height" value={formatLength(head - sill, units)} testID="opening-height" />
      ) : (
        <Words style={{ fontSize: 14 }} testID="opening-upside-down">
          Its head lies no higher than its sill. Type one of them again.
        </Words>
      )}
    </>
  );
}

/** An opening reaches no higher than the wall that it is in, where that is said to rise to a level. */
function OverItsWall({ opening: { head = 0 }, layer: id }: { opening: Opening; layer: string }) {
  const units = useUnits();
  const layer = useJob(({ job }) => job.layers.find((each) => each.id === id));
  const top = useJob(({ job }) => job.features.find((feature) => feature.id === layer?.risesTo)?.name);
  const arranged = useJob(({ derived }) => derived.arranged);
  const rise = layer && riseOf(layer, 'top', arranged);
  if (!rise || rise.value <= 0 || head <= rise.value + 2 * rise.sigma) return null;
  return (
    <Words style={{ fontSize: 14 }} testID="opening-over-wall">
      {`Its head lies ${formatLength(head - rise.value, units)} above “${top}”, up to which its wall rises. Type its head again, or choose another level for the wall.`}
    </Words>
  );
}

interface FillProps {
  readonly opening: Opening;
  readonly fill: Fill;
  readonly put: (fill: Fill) => void;
}

function FillCard({ opening, fill, put }: FillProps) {
  const units = useUnits();
  const { hung } = fill;
  const clear = clearWidth(opening);
  return (
    <Card testID="fill-card">
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <LengthField
          signed
          label="Frame, each side"
          mm={fill.frame}
          onChange={(mm) => put({ ...fill, frame: Math.max(0, mm) })}
          testID="fill-frame"
        />
        <LengthField
          label="Leaf, thick"
          mm={fill.leaf}
          onChange={(leaf) => put({ ...fill, leaf })}
          testID="fill-leaf"
        />
      </View>
      {clear > 0 ? (
        <FigureRow name="Free between the jambs" value={formatLength(clear, units)} testID="fill-clear" />
      ) : (
        <Words style={{ fontSize: 14 }} testID="fill-full">
          The frame takes all of the opening: nothing is drawn in it. Make the frame narrower or the opening wider.
        </Words>
      )}
      <Choice
        name="How it opens"
        value={hung ? 'hung' : 'shut'}
        options={HANGS}
        onChange={(to) =>
          put({ ...fill, hung: to === 'hung' ? { at: 'start', to: 'left', open: QUARTER } : undefined })
        }
      />
      <Choice
        name="How many leaves"
        value={String(fill.leaves) as '1' | '2'}
        options={LEAVES}
        onChange={(to) => put({ ...fill, leaves: to === '2' ? 2 : 1 })}
      />
      {hung ? <HungFields opening={opening} fill={fill} hung={hung} put={put} /> : null}
    </Card>
  );
}

/** To which side it opens, about which jamb, and how far. */
function HungFields({ opening, fill, hung, put }: FillProps & { hung: NonNullable<Fill['hung']> }) {
  const hand = handOf(opening);
  return (
    <>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Button
          mode="outlined"
          compact
          icon="mirror"
          onPress={() => put({ ...fill, hung: { ...hung, to: hung.to === 'left' ? 'right' : 'left' } })}
          testID="fill-side">
          To the other side
        </Button>
        {fill.leaves === 1 ? (
          <Button
            mode="outlined"
            compact
            icon="turn"
            onPress={() => put({ ...fill, hung: { ...hung, at: hung.at === 'start' ? 'end' : 'start' } })}
            testID="fill-hinge">
            Hinges at the other jamb
          </Button>
        ) : null}
      </View>
      <AngleField
        label="Drawn open by"
        radians={hung.open}
        onChange={(open) => put({ ...fill, hung: { ...hung, open: Math.min(Math.PI, Math.abs(open)) } })}
        testID="fill-open"
      />
      {hand ? (
        <Words
          quiet
          style={{ fontSize: 14 }}
          testID="fill-hand">{`Hinges on the ${hand}, seen from where it opens to.`}</Words>
      ) : null}
    </>
  );
}
