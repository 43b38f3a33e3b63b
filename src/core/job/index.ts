export { findLock, findLockOn, fitOwner, named, together, type Command, type CommandName } from './command';
export * from './evidence-commands';
export * from './feature-commands';
export { setStandsOn, standBetween, turnOnEdge } from './edge-commands';
export type { LineShown } from './sharing';
export type { DrawnSpaceCurve, Feature, NamedLook, Seen, Span } from './feature';
export * from './outline-commands';
export * from './view-commands';
export { isLevelTold } from './axes';
export { createJob, createView } from './create';
export {
  EVIDENCE_KINDS,
  type Evidence,
  type EvidenceKind,
  type EvidencePoint,
  type EvidenceRole,
  type SaidName,
} from './evidence';
export * from './reference-commands';
export * from './relation-commands';
export * from './siting-commands';
export * from './look-commands';
export { bringPart, listMatching, partOfJob, withNewIds } from './brought';
export type { Setback } from './siting';
export type { StoodByEye } from './by-eye';
export type { StandOff, Variants } from './variants';
export * from './dimension-commands';
export { DIMENSION_KINDS, type DimensionKind } from './dimension';
export {
  addMade,
  addRegion,
  changeRecipe,
  changeRegion,
  letGo,
  removeRegion,
  replaceOutline,
  setAid,
} from './made-commands';
export * from './opening-commands';
export * from './part-commands';
export type { Part } from './part';
export { groundOf, type Plane } from './planes';
export { REGION_KINDS, type NamedRegion, type RegionKind } from './region';
export { type BrushStroke, type CleaningStep } from './cleaning';
export type { Asked } from './asked';
export { SITE, type Reference, type ReferenceFormat, type Site } from './reference';
export { redo, runCommand, startHistory, undo, type History, type HistoryEntry } from './history';
export { isHoldable } from './holdable';
export { readJob } from './read';
export {
  JOB_FORMAT,
  JOB_VERSION,
  JobSchema,
  type Job,
  type Layer,
  type LayerColor,
  type Sheet,
  type Taken,
  listFiles,
  type Dimension,
  type View,
  type ViewSide,
  VIEW_SIDES,
  LOOK_BACKINGS,
  LOOK_TINTS,
} from './schema';
export { AS_DRAWN, matchedEvidence, type MatchedPlace } from './matching';
export { believableDpi, isResolution, resolutionEvidence, type ResolutionEvidence } from './resolution';
