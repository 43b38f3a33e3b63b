export { canRelate, hasSize, hasValue } from './applies';
export { follows, judgeRelation, type Verdict } from './conflict';
export { findElement, type Element } from './element';
export { listFreedoms, type Freedom } from './freedoms';
export { listGroups, type Group } from './groups';
export { listNominals, listSlopes, type Nominal } from './nominal';
export { type RelatingPlane } from './plane';
export { foreseeMoves, listProposals, type Proposal } from './proposals';
export { isRelatable, type Relatable } from './relatable';
export { findTurned } from './turned';
export { RELATION_KINDS, type Relation, type RelationEnd, type RelationKind } from './relation';
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
