import type {
  Drawing,
  FileSummary,
  FileUnit,
  OpeningLine,
  PartLine,
  ReferenceGeometry,
  ReferenceRequest,
  SpaceSummary,
} from '@/core/formats';
import type { Job } from '@/core/job';

export type DrawingFormat = 'dxf' | 'svg';

export type FileOperations = {
  /** Writes a drawing and reads it back with a reader that shares nothing with the writer. */
  readonly writeDrawing: {
    readonly input: { readonly drawing: Drawing; readonly format: DrawingFormat; readonly unit: FileUnit };
    readonly output: WrittenDrawing;
  };
  /** Likewise where planes stand in space. */
  readonly writeInSpace: {
    readonly input: { readonly drawing: Drawing; readonly unit: FileUnit };
    readonly output: { readonly text: string; readonly readBack: SpaceSummary };
  };
  /** Line work of existing drawings, packed. */
  readonly readReference: { readonly input: ReferenceRequest; readonly output: ReferenceGeometry };
  /** The list of parts as comma-separated values. */
  readonly writeParts: { readonly input: { readonly lines: readonly PartLine[] }; readonly output: string };
  /** The list of doors and windows, likewise. */
  readonly writeOpenings: { readonly input: { readonly lines: readonly OpeningLine[] }; readonly output: string };
  readonly writeBundle: { readonly input: BundleData; readonly output: ArrayBuffer };
  readonly readBundle: { readonly input: { readonly bytes: ArrayBuffer }; readonly output: BundleData };
};

export interface WrittenDrawing {
  readonly text: string;
  readonly readBack: FileSummary;
}

export interface BundleData {
  readonly job: Job;
  readonly pictures: readonly { readonly hash: string; readonly bytes: ArrayBuffer }[];
}
