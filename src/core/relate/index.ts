export { hasSize, hasValue } from './applies';
export { follows, judgeRelation, type Verdict } from './conflict';
export { takeRelations } from './together';
export { listFreedoms, type Freedom } from './freedoms';
export { listGroups, type Group } from './groups';
export { listNominals, listSlopes, type Nominal } from './nominal';
export { findLive, type LiveRelation } from './live';
export { heldStill, movedPose, type PoseMove, type RelatingPlane, type RelatingPlanes, type StandingIn } from './plane';
export { foreseeMoves, listProposals, type Proposal } from './proposals';
export { isRelatable, type Relatable } from './relatable';
export { findTurned } from './turned';
export { directionOfOne, RELATION_KINDS, type Relation, type RelationEnd, type RelationKind } from './relation';
export {
  doubtsAt,
  listMoves,
  outlineAt,
  solvedOutlines,
  solveRelations,
  TOO_FAR,
  type Move,
  type Solved,
} from './solve-relations';
export { spreadOf, type Spread } from './spread';
