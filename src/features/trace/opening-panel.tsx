import { View } from 'react-native';
import type { OpeningState } from '@/bench/tools';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import { listOpenings, spansIn, type OpeningRow } from '@/core/derive';
import { changeOpenings } from '@/core/job';
import { middleOf, openingsOf, type Opening } from '@/core/outline';
import { formatLength } from '@/core/units';
import { useUnits } from '@/features/job/use-units';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { Figures, Words } from '@/ui/text';
import { OPENING_KINDS, OpeningCard } from './opening-card';

/** Doors, windows and gaps: what is put next, those that there are, and the chosen one. */
export function OpeningPanel({ state }: { state: OpeningState }) {
  const { jobs, session } = useDesk();
  const fitted = useFitted();
  const job = useJob((whole) => whole.job);
  if (!fitted) return null;
  const rows = listOpenings(job).filter(({ wall }) => wall.plane === fitted.view.plane);
  const chosen = rows.find(({ opening }) => opening.id === state.chosen);
  const put = ({ wall, opening }: OpeningRow, next: Opening | undefined) => {
    const openings = openingsOf(wall).flatMap((other) => (other.id === opening.id ? (next ?? []) : [other]));
    jobs.getState().run(changeOpenings(wall.id, openings, next ? 'opening-changed' : 'opening-removed', newId));
  };
  const choose = ({ wall, opening }: OpeningRow) => {
    const span = spansIn(wall.id, job, jobs.getState().derived.shapes).find((other) => other.opening.id === opening.id);
    if (span) {
      const [[x, y], reach] = [middleOf(span), span.length];
      session.goTo([x - reach, y - reach], [x + reach, y + reach]);
    }
    session.setTool({ name: 'opening', state: { ...state, chosen: opening.id } });
  };
  return (
    <>
      {chosen ? (
        <OpeningCard
          key={chosen.opening.id}
          row={chosen}
          change={(next) => put(chosen, next)}
          remove={() => put(chosen, undefined)}
        />
      ) : null}
      <Card testID="opening-list">
        <Words quiet style={{ fontSize: 14 }}>
          Point at a wall where one should be, or at one that is there.
        </Words>
        <Choice
          name="What comes next"
          value={state.next}
          options={OPENING_KINDS}
          onChange={(next) => session.setTool({ name: 'opening', state: { next } })}
        />
        {rows.map((row) => (
          <ListedOpening key={row.opening.id} row={row} isChosen={row === chosen} onChoose={() => choose(row)} />
        ))}
        {rows.length > 0 ? (
          <Words quiet style={{ fontSize: 14 }}>
            Frames, leaves and swings are outlines of their own, each on its layer: hide one and it stays out of the
            file. Rooms are found as if doors were shut.
          </Words>
        ) : null}
      </Card>
    </>
  );
}

function ListedOpening({
  row: { opening, kind, mark, line },
  isChosen,
  onChoose,
}: {
  row: OpeningRow;
  isChosen: boolean;
  onChoose: () => void;
}) {
  const units = useUnits();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }} testID={`opening-row-${mark}`}>
      <Words style={{ flex: 1, fontWeight: isChosen ? '700' : '400' }}>{`${mark} · ${kind}`}</Words>
      <Figures style={{ fontSize: 14 }}>{line ? formatLength(opening.width, units) : 'its corner is gone'}</Figures>
      <RoundButton icon="seek" name={`Go to ${mark}`} size={36} onPress={onChoose} />
    </View>
  );
}
