import { createWorkerClient, type WorkerLike } from './client';
import type { DrawingOperations } from './drawing-operations';
import type { FitOperations } from './fit-operations';
import type { FileOperations } from './file-operations';
import type { PictureOperations } from './picture-operations';
import type { RelateOperations } from './relate-operations';

/** The workers of the app. Each starts when it is first asked for something. */
export const pictureWorker = createWorkerClient<PictureOperations>(
  () => new Worker(new URL('../../src/workers/picture.worker', window.location.href)) as unknown as WorkerLike,
);
/** Works through each call without a pause, so it is ended where a call is given up. */
export const fileWorker = createWorkerClient<FileOperations>(
  () => new Worker(new URL('../../src/workers/file.worker', window.location.href)) as unknown as WorkerLike,
  { hearsCancel: false },
);
/** Works through each call without a pause, as the file worker does. */
export const drawingWorker = createWorkerClient<DrawingOperations>(
  () => new Worker(new URL('../../src/workers/drawing.worker', window.location.href)) as unknown as WorkerLike,
  { hearsCancel: false },
);
/** Works through each call without a pause, as the file worker does. */
export const fitWorker = createWorkerClient<FitOperations>(
  () => new Worker(new URL('../../src/workers/fit.worker', window.location.href)) as unknown as WorkerLike,
  { hearsCancel: false },
);
/** The same worker once more, so that fits do not wait for what is said of outlines. */
export const relateWorker = createWorkerClient<RelateOperations>(
  () => new Worker(new URL('../../src/workers/fit.worker', window.location.href)) as unknown as WorkerLike,
  { hearsCancel: false },
);

export type { ToJudge } from './fit-operations';
export type { BundleData, DrawingFormat, WrittenDrawing } from './file-operations';
export type { PictureWindow, SidesRequest, OpenedPicture, ThumbnailRequest, TileRequest } from './picture-operations';
export { TILE_SIZE } from './picture-operations';
export type { Outcome } from './protocol';
