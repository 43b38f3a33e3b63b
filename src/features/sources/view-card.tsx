import { useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { useDesk, useSession } from '@/bench/use-session';
import type { FittedView } from '@/core/derive';
import {
  orderView,
  removeView,
  renameView,
  setFrame,
  setHidden,
  setLocked,
  setLookOnly,
  setSide,
  shareFit,
  type View as JobView,
} from '@/core/job';
import { Card } from '@/ui/card';
import { Choice, RoundButton } from '@/ui/ledge-button';
import { usePalette } from '@/ui/palette';
import { Words } from '@/ui/text';
import { SIDES } from './view-from-frame';

interface ViewCardProps {
  readonly fitted: FittedView;
  /** Its place in the strip. */
  readonly index: number;
  readonly views: readonly JobView[];
}

/** A view in the strip: its name and side, its order, lock, crop, and whether its fit is its own. */
export function ViewCard({ fitted: { view, sheet }, index, views }: ViewCardProps) {
  const palette = usePalette();
  const { jobs, session } = useDesk();
  const chosen = useSession((state) => state.viewId === view.id);
  const { run } = jobs.getState();
  const [name, setName] = useState(view.name);
  const rename = () =>
    name.trim() !== '' && name.trim() !== view.name ? run(renameView(view.id, name.trim())) : setName(view.name);
  const owner = views.find(({ id }) => id === view.shares);
  const others = views.filter(
    (other) => other.sheet === sheet.id && other.id !== view.id && other.shares === undefined,
  );
  const remove = () => {
    run(removeView(view.id));
    const [left] = jobs.getState().job.views;
    if (chosen && left) session.chooseView(left.id);
  };
  return (
    <Card chosen={chosen} testID={`view-card-${view.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 2 }}>
        <TextInput
          mode="outlined"
          dense
          label={`View ${index + 1}`}
          accessibilityLabel={`Name of ${view.name}`}
          value={name}
          maxLength={80}
          onChangeText={setName}
          onBlur={rename}
          onSubmitEditing={rename}
          style={{ flex: 1, height: 42, backgroundColor: palette.paper }}
        />
        <RoundButton
          icon="left"
          name={`Move ${view.name} forward`}
          size={36}
          disabled={index === 0}
          onPress={() => run(orderView(view.id, index - 1))}
        />
        <RoundButton
          icon="right"
          name={`Move ${view.name} back`}
          size={36}
          disabled={index === views.length - 1}
          onPress={() => run(orderView(view.id, index + 1))}
        />
        <RoundButton
          icon={view.hidden ? 'hide' : 'eye'}
          name={view.hidden ? `Show ${view.name}` : `Hide ${view.name}`}
          size={36}
          onPress={() => run(setHidden(view.id, !view.hidden))}
        />
        <RoundButton
          icon={view.locked ? 'lock' : 'unlock'}
          name={view.locked ? `Unlock ${view.name}` : `Lock ${view.name}`}
          size={36}
          onPress={() => run(setLocked(view.id, !view.locked))}
        />
        <RoundButton icon="trash" name={`Remove ${view.name}`} size={36} onPress={remove} />
      </View>
      <Choice
        name={`Side that ${view.name} shows`}
        value={view.side ?? ('' as never)}
        options={SIDES}
        onChange={(side) => run(setSide(view.id, side === view.side ? undefined : side))}
      />
      <Words quiet style={{ fontSize: 13 }}>
        {owner
          ? `Shares the fit of “${owner.name}”.`
          : view.frame
            ? 'A part of its sheet, with a fit of its own.'
            : `All of “${sheet.name}”.`}
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {chosen ? null : (
          <Button compact onPress={() => session.chooseView(view.id)}>
            Look at it
          </Button>
        )}
        {view.frame ? (
          <Button compact onPress={() => (run(setFrame(view.id, undefined)), chosen && session.sight.showAll())}>
            Show all of the sheet
          </Button>
        ) : null}
        <Button compact onPress={() => run(setLookOnly(view.id, !view.lookOnly))} testID="look-only">
          {view.lookOnly ? 'Measure with it' : 'Keep it only to look at'}
        </Button>
        {owner ? (
          <Button compact onPress={() => run(shareFit(view.id, undefined))} testID="own-fit">
            Give it its own fit
          </Button>
        ) : null}
        {owner
          ? null
          : others
              .slice(0, 3)
              .map((other) => (
                <Button
                  key={other.id}
                  compact
                  onPress={() => run(shareFit(view.id, other.id))}>{`Share with “${other.name}”`}</Button>
              ))}
      </View>
    </Card>
  );
}
