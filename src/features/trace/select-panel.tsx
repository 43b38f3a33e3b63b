import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { findSelectedChain, type SelectState } from '@/bench/tools';
import { useDesk, useFitted, useJob } from '@/bench/use-session';
import {
  commandForMove,
  duplicate,
  findClosing,
  findNodeDeleted,
  nodeAdded,
  sentNode,
  smoothSet,
  type FittedView,
} from '@/core/derive';
import { moveToLayer, removeOutlines, type Command } from '@/core/job';
import { isMovable, type Chain, type Outline } from '@/core/outline';
import { newId } from '@/store';
import { Card } from '@/ui/card';
import { Choice, LedgeButton } from '@/ui/ledge-button';
import { UnderButton } from './under-button';
import { Words } from '@/ui/text';
import { CornerCard } from './corner-card';
import { CurveCard } from './curve-card';
import { PartCard } from './part-card';
import { ReadOpeningCard } from './read-opening';
import { AlignCard } from './make/align-card';
import { ByFields } from './make/fields';
import { MakeCard } from './make/make-card';
import { RecipeCard } from './make/recipe-card';
import { OutlineFiguresCard } from './outline-figures-card';
import { useSending } from './use-sending';

/** What can be done with what is selected. */
export function SelectPanel({ state }: { state: SelectState }) {
  const { session, jobs } = useDesk();
  const fitted = useFitted();
  const job = useJob((current) => current.job);
  if (!fitted) return null;
  const outlines = job.outlines.filter((outline) => state.outlines.includes(outline.id));
  const chain = findSelectedChain(state, { job });
  const all = job.outlines.filter(({ plane, aid }) => plane === fitted.view.plane && !aid).map(({ id }) => id);
  const set = (change: Partial<SelectState>) => session.changeTool('select', change);
  const run = (command: Command | undefined, refusal: string) =>
    command ? jobs.getState().run(command) : session.say(refusal);
  if (outlines.length === 0) {
    return (
      <Card>
        <Words quiet>
          {job.outlines.length === 0
            ? 'Nothing is drawn yet. Choose Line, Arc, Curve or Circle and point along the edge.'
            : 'Point at an outline to choose it.'}
        </Words>
        {all.length > 1 ? (
          <Button mode="outlined" onPress={() => set({ outlines: all })} testID="select-all">
            Choose all
          </Button>
        ) : null}
      </Card>
    );
  }
  return (
    <>
      {outlines.length === 1 && outlines[0]!.shape === 'made' ? (
        <RecipeCard key={outlines[0]!.id} made={outlines[0]!} />
      ) : null}
      <Card>
        <EditRow state={state} outlines={outlines} chain={chain} fitted={fitted} set={set} run={run} />
        {fitted.fit.scaled && outlines.some(isMovable) ? (
          <ByFields label="Move" onSubmit={(by) => run(commandForMove(outlines, by, fitted), '')} testID="move" />
        ) : null}
        {job.layers.length > 1 ? (
          <Choice
            name="Layer of what is chosen"
            value={outlines[0]!.layer}
            options={job.layers.map((layer) => [layer.id, layer.name] as const)}
            onChange={(layer) => run(moveToLayer(state.outlines, layer), '')}
          />
        ) : null}
      </Card>
      <MakeCard outlines={outlines} of={state.outlines} fitted={fitted} />
      {fitted.fit.scaled && outlines.length > 1 ? <AlignCard of={state.outlines} fitted={fitted} /> : null}
      {chain ? <CurveCard key={`curve/${chain.id}/${state.node}`} chain={chain} node={state.node} /> : null}
      {chain && fitted.fit.scaled ? (
        <CornerCard key={`${chain.id}/${state.node}`} chain={chain} node={state.node} />
      ) : null}
      {outlines.length === 1 ? <ReadOpeningCard outline={outlines[0]!} /> : null}
      <PartCard key={`part/${state.outlines.join()}`} of={state.outlines} fitted={fitted} />
      {outlines.length === 1 ? <OutlineFiguresCard outline={outlines[0]!} fitted={fitted} /> : null}
    </>
  );
}

interface EditRowProps {
  readonly state: SelectState;
  readonly outlines: readonly Outline[];
  readonly chain: Chain | undefined;
  readonly fitted: FittedView;
  readonly set: (change: Partial<SelectState>) => void;
  readonly run: (command: Command | undefined, refusal: string) => void;
}

/** What is done to what is chosen, or to its chosen point. */
function EditRow({ state, outlines, chain, fitted, set, run }: EditRowProps) {
  const relations = useJob((current) => current.job.relations);
  const node = chain?.nodes.find((other) => other.id === state.node);
  const remove = () => {
    if (node && chain) run(findNodeDeleted(chain, node.id), 'node-needed');
    else run(removeOutlines(state.outlines), 'node-needed');
    set(node ? { node: undefined } : { outlines: [], segment: undefined });
  };
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
      <LedgeButton
        icon="trash"
        label="Delete"
        name={node ? 'Delete the point' : 'Delete the outline'}
        onPress={remove}
        testID="edit-delete"
      />
      <LedgeButton
        icon="copy"
        label="Duplicate"
        onPress={() => {
          const { command, ids } = duplicate(outlines, relations, newId);
          run(command, '');
          set({ outlines: ids, node: undefined, segment: undefined });
        }}
        testID="edit-duplicate"
      />
      <UnderButton within={state.within} />
      <LedgeButton
        icon="layers"
        label="Several"
        name="Choose several outlines"
        chosen={state.several}
        onPress={() => set({ several: !state.several, node: undefined })}
        testID="edit-several"
      />
      {chain ? <PointButtons state={state} chain={chain} node={node} fitted={fitted} set={set} run={run} /> : null}
    </View>
  );
}

interface PointButtonsProps extends Omit<EditRowProps, 'outlines'> {
  readonly chain: Chain;
  readonly node: Chain['nodes'][number] | undefined;
}

/** What is done to one outline's points. */
function PointButtons({ state, chain, node, fitted, set, run }: PointButtonsProps) {
  const features = useJob(({ job }) => job.features);
  const send = useSending();
  const sent = node && sentNode(chain, node.id, fitted, features);
  return (
    <>
      {!chain.closed ? (
        <LedgeButton
          icon="loop"
          label="Close"
          onPress={() => run(findClosing(chain, fitted), 'outline-too-short-to-close')}
          testID="edit-close"
        />
      ) : null}
      {state.segment ? (
        <LedgeButton
          icon="plus"
          label="Add point"
          onPress={() => {
            run(nodeAdded(chain, state.segment!, { fitted, newId }), '');
            set({ segment: undefined });
          }}
          testID="edit-add"
        />
      ) : null}
      {node ? (
        <LedgeButton
          icon="curve"
          label={node.smooth ? 'Corner' : 'Smooth'}
          name={node.smooth ? 'Turn into a corner' : 'Turn into a smooth point'}
          onPress={() => run(smoothSet(chain, node.id, !node.smooth), '')}
          testID="edit-smooth"
        />
      ) : null}
      {node ? (
        <LedgeButton
          icon="right"
          label="Move"
          name="Point at where the point goes"
          chosen={state.moving}
          onPress={() => set({ moving: !state.moving })}
          testID="edit-move"
        />
      ) : null}
      {send && sent ? (
        <LedgeButton
          icon="share"
          label="Share"
          name="Share the point with the other views"
          onPress={() => send(sent)}
          testID="edit-share"
        />
      ) : null}
    </>
  );
}
