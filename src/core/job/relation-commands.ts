import type { Relation } from '../relate';
import { command, draft } from './command';
import type { Job } from './schema';

export const addRelations = (relations: readonly Relation[], code = 'relation-added') =>
  command(code, (job) => void job.relations.push(...draft(relations)), {
    kind: relations[0]?.kind ?? '',
    count: relations.length,
  });
export const removeRelations = (ids: readonly string[]) =>
  command('relations-removed', (job) => void (job.relations = job.relations.filter(({ id }) => !ids.includes(id))), {
    count: ids.length,
  });
/** What was proposed and is not true is not proposed again, until somebody asks for it. */
export const declineProposals = (proposals: Job['declined']) =>
  command('proposals-declined', (job) => void job.declined.push(...draft(proposals)), { count: proposals.length });
export const proposeAgain = (plane: string) =>
  command('proposals-again', (job) => {
    const here = new Set(job.outlines.filter((outline) => outline.plane === plane).map(({ id }) => id));
    job.declined = job.declined.filter(({ on }) => !on.some(({ outline }) => here.has(outline)));
  });
/** Another value of a relation: mm or radians. */
export const setRelationValue = (id: string, value: number) =>
  command(
    'relation-value-set',
    (job) => {
      const relation = job.relations.find((other) => other.id === id);
      if (relation) relation.value = value;
    },
    { value },
  );
