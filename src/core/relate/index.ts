export { canRelate, hasSize, hasValue } from './applies';
export { follows, judgeRelation, type Verdict } from './conflict';
export { findElement, type Element } from './element';
export { listGroups, type Group } from './groups';
export { listNominals, type Nominal } from './nominal';
export { type RelatingPlane } from './plane';
export { listProposals, type Proposal } from './proposals';
export { CENTRE, RELATION_KINDS, type Relation, type RelationEnd, type RelationKind } from './relation';
export { doubtsAt, listMoves, outlineAt, solvedOutlines, solveRelations, spreadOf, type Move, type Solved, type Spread } from './solve-relations';
