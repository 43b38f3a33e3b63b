import type { Vec } from '@/core/geometry';
import { NOTHING, type Tool } from './tool';

export interface RegionState {
  /** A place in the region that was pointed at. View plane. */
  readonly at?: Vec | undefined;
}

/** Points at regions to name them. */
export const regionTool: Tool<RegionState> = {
  belongsTo: 'trace',
  hint: () => ({ code: 'region' }),
  marks: ({ at }) => [{ kind: 'regions', at }],
  start: {},
  isFree: () => true,
  setsNoPoint: () => true,
  step: (state, input) =>
    input.kind === 'set' ? [{ at: input.aim.plane }, []] : input.kind === 'cancel' ? [{}, []] : [state, []],
  preview: () => NOTHING,
};
