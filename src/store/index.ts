export { bringInPicture, type BringInOptions, type BroughtIn, type ToldBySource } from './bring-in';
export { createJobOf, openBundle, packJob, storeJob, thumbnailOf, type Imported } from './bundles';
export { bringBack, bringToHand, openPicture, type AtHand } from './picture-at-hand';
export { newId } from './ids';
export { type JobState, type JobStore } from './job-store';
export type { SaveState } from './autosave';
export type { Lease, NotHeld } from './lease';
export { deleteStored, duplicateStored, readStored, renameStored, type Outside } from './from-list';
export type { Judge } from './judging';
export { openJob, type DeskOptions, type OpenDesk } from './own-desk';
export { repository, type JobCard } from './repository';
export {
  bringInReference,
  isWorldFileName,
  loadReference,
  referenceFormatOf,
  type LoadedReference,
} from './references';
export { activeSteps, openShown, shownPicture, type ShownPicture } from './shown-picture';
export { askService, fetchPicture } from './services';
export { keepAppOnDevice } from './stay-offline';
export { ownShelf } from './own-shelf';
export { isStorageFull } from './storage';
export { forgetMark, isThrownAway } from './mark';
export { isKept, isPutBack, keepStorage, storage } from './this-device';
