export { bringInPicture, type BringInOptions, type BroughtIn } from './bring-in';
export { openBundle, openPicture, packJob, storeJob, thumbnailOf, type Imported } from './bundles';
export { newId } from './ids';
export { jobCardOf } from './job-card';
export { createJobStore, type JobState, type JobStore, type SaveState } from './job-store';
export { claimJob, type Lease } from './lease';
export { JobRepository, repository, type JobCard } from './repository';
export { OwnShelf, ownShelf } from './own-shelf';
export { isStorageFull, storage } from './storage';
