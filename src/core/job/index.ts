export * from './command';
export { createJob, createView } from './create';
export { redo, runCommand, startHistory, undo, type History, type HistoryEntry } from './history';
export { readJob } from './read';
export { JOB_FORMAT, JOB_VERSION, JobSchema, type Evidence, type Job, type Layer, type LayerColor, type Sheet, type Taken, type View } from './schema';
