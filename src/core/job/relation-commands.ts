import type { Relation } from '../relate';
import { command, draft } from './command';

export const addRelations = (relations: readonly Relation[], code = 'relation-added') =>
  command(code, (job) => void job.relations.push(...draft(relations)), { kind: relations[0]?.kind ?? '', count: relations.length });
export const removeRelations = (ids: readonly string[]) =>
  command('relations-removed', (job) => void (job.relations = job.relations.filter(({ id }) => !ids.includes(id))), { count: ids.length });
/** Another value of a relation: mm or radians. */
export const setRelationValue = (id: string, value: number) =>
  command('relation-value-set', (job) => {
    const relation = job.relations.find((other) => other.id === id);
    if (relation) relation.value = value;
  }, { value });
