import type { Piece } from '@/core/geometry';
import type { CheckLimits, Finding, Shape } from '@/core/outline';
import type { Region } from '@/core/planar';

/** What takes long where hundreds of outlines lie over each other. */
export type DrawingOperations = {
  readonly checkShapes: {
    readonly input: { readonly shapes: readonly Shape[]; readonly limits: CheckLimits };
    readonly output: readonly Finding[];
  };
  readonly listRegions: {
    readonly input: { readonly pieces: readonly Piece[]; readonly tolerance: number };
    readonly output: readonly Region[];
  };
};
