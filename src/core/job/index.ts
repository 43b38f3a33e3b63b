export { fitOwner, type Command, type CommandName } from './command';
export * from './evidence-commands';
export * from './outline-commands';
export * from './view-commands';
export { createJob, createView } from './create';
export { EVIDENCE_KINDS, type Evidence, type EvidenceKind, type EvidencePoint, type EvidenceRole, type SaidName } from './evidence';
export { redo, runCommand, startHistory, undo, type History, type HistoryEntry } from './history';
export { readJob } from './read';
export { JOB_FORMAT, JOB_VERSION, JobSchema, type Job, type Layer, type LayerColor, type Sheet, type Taken, fromPictureKey, pictureKey, type View, type ViewSide, VIEW_SIDES, LOOK_BACKINGS, LOOK_TINTS } from './schema';
