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
import { SIDE_CHOICES } from './view-from-frame';

interface ViewCardProps {
  readonly fitted: FittedView;
  /** Its place in the strip. */
  readonly index: number;
  readonly views: readonly JobView[];
}

/** A view in the strip: its name and side, its order, lock, crop, and whether its fit is its own. */
export function ViewCard(props: ViewCardProps) {
  const { jobs } = useDesk();
  const { view, sheet } = props.fitted;
  const chosen = useSession((state) => state.viewId === view.id);
  const owner = props.views.find(({ id }) => id === view.shares);
  return (
    <Card chosen={chosen} testID={`view-card-${view.name}`}>
      <ViewHead {...props} chosen={chosen} />
      <Choice
        name={`Side that ${view.name} shows`}
        value={view.side ?? ('' as never)}
        options={SIDE_CHOICES}
        onChange={(side) => jobs.getState().run(setSide(view.id, side === view.side ? undefined : side))}
      />
      <Words quiet style={{ fontSize: 13 }}>
        {owner
          ? `Shares the fit of “${owner.name}”.`
          : view.frame
            ? 'A part of its sheet, with a fit of its own.'
            : `All of “${sheet.name}”.`}
      </Words>
      <ViewWays {...props} chosen={chosen} owner={owner} />
    </Card>
  );
}

/** Its name, and what is done to it with one tap. */
function ViewHead({ fitted: { view }, index, views, chosen }: ViewCardProps & { readonly chosen: boolean }) {
  const { jobs, session } = useDesk();
  const { run } = jobs.getState();
  const remove = () => {
    run(removeView(view.id));
    const [left] = jobs.getState().job.views;
    if (chosen && left) session.chooseView(left.id);
  };
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 2 }}>
      <ViewName view={view} label={`View ${index + 1}`} />
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
  );
}

function ViewName({ view, label }: { view: JobView; label: string }) {
  const palette = usePalette();
  const { jobs } = useDesk();
  const [name, setName] = useState(view.name);
  const rename = () => {
    const said = name.trim();
    if (said === '' || said === view.name) setName(view.name);
    else jobs.getState().run(renameView(view.id, said));
  };
  return (
    <TextInput
      mode="outlined"
      dense
      label={label}
      accessibilityLabel={`Name of ${view.name}`}
      value={name}
      maxLength={80}
      onChangeText={setName}
      onBlur={rename}
      onSubmitEditing={rename}
      style={{ flex: 1, height: 42, backgroundColor: palette.paper }}
    />
  );
}

interface ViewWaysProps extends ViewCardProps {
  readonly chosen: boolean;
  /** The view whose fit it shares. */
  readonly owner: JobView | undefined;
}

/** What can be shared, shown and measured. */
function ViewWays({ fitted: { view, sheet }, views, chosen, owner }: ViewWaysProps) {
  const { jobs, session } = useDesk();
  const { run } = jobs.getState();
  const others = views.filter(
    (other) => other.sheet === sheet.id && other.id !== view.id && other.shares === undefined,
  );
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
      {chosen ? null : (
        <Button compact onPress={() => session.chooseView(view.id)}>
          Look at it
        </Button>
      )}
      {view.frame ? (
        <Button compact onPress={() => (run(setFrame(view.id, undefined)), chosen && session.framing.showAll())}>
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
  );
}
