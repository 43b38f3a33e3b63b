import { addMade, addOutline, addRelations, changeOutline, together, type Command } from '@/core/job';
import { findClosed, shapeOf, type Chain, type Guide, type Segment, type Shape } from '@/core/outline';
import { findDraft, SAME_POINT, settled, START, type ChainState } from './chain-state';
import { relationsSaid } from './drawn-up-to';
import { run, say, stay, type Step, type ToolContext } from './tool';
import { wallCommand } from './wall';

/** The finished outline goes into the job; a fresh draft keeps the kind of segment and the lock. */
function done(state: ChainState, chain: Chain, context: ToolContext): Step<ChainState> {
  const id = state.carries?.id ?? context.newId();
  const outline: Chain = { ...chain, id };
  const command = state.carries ? changeOutline(outline, 'outline-carried-on') : addOutline(outline);
  const relations = relationsSaid(state.says ?? [], outline, context);
  if (state.wall && !state.carries) {
    const line = addOutline({ ...outline, aid: true });
    return [fresh(state), [run(together([addRelations(relations), line, wallCommand(state.wall, id, context)]))]];
  }
  const mirrored = state.carries ? undefined : findCentreLine(context);
  const drawn = [addRelations(relations), command] as const;
  const all = mirrored ? together([...drawn, imageOf(outline, mirrored, context.newId())]) : together(drawn);
  return [fresh(state), [run(all)]];
}

/** What is drawn beside a centre line has its other half at once. */
function imageOf({ id, layer, plane }: Chain, about: Guide, newId: string): Command {
  const recipe = { kind: 'mirrored', of: [id], guide: about.id, joined: true } as const;
  return addMade({ shape: 'made', id: newId, layer, plane, recipe }, true);
}

/** A fresh draft that is drawn as the last one was. */
export const fresh = ({ kind, lock, arcBy, radius, wall }: ChainState): ChainState => ({
  ...START,
  kind: kind === 'tangent' ? 'line' : kind,
  lock,
  arcBy,
  radius,
  wall,
});

export function finish(state: ChainState, context: ToolContext): Step<ChainState> {
  const draft = findDraft({ ...state, through: undefined }, context);
  if (!draft || draft.segments.length === 0) return stay(state, say('outline-needs-two-points'));
  return done(state, draft, context);
}

export function close(state: ChainState, context: ToolContext): Step<ChainState> {
  const draft = findDraft(state, context);
  if (!draft || draft.segments.length === 0) return stay(state, say('outline-needs-two-points'));
  const shape = shapeOf(draft, context.fitted.placing);
  const closed = closedBy(state, draft, shape);
  return closed ? done(state, closed, context) : stay(state, say('outline-too-short-to-close'));
}

/** Closed with the kind of segment that is being drawn, where that kind can close; else with a line. */
function closedBy(state: ChainState, draft: Chain, shape: Shape): Chain | undefined {
  const segment: Segment | undefined =
    state.kind === 'arc'
      ? state.through && { kind: 'arc', through: state.through }
      : state.kind === 'line'
        ? undefined
        : { kind: state.kind };
  if (segment && (draft.nodes.length >= 3 || segment.kind === 'arc'))
    return { ...draft, nodes: settled(state, segment), closed: true, segments: [...draft.segments, segment] };
  return findClosed(draft, shape, SAME_POINT);
}

/** The centre line of the view about which what is drawn is mirrored. */
export function findCentreLine({ job, fitted }: ToolContext): Guide | undefined {
  return job.guides.find(({ plane, mirrors }) => mirrors && plane === fitted.view.plane);
}
