/** What an answer of `bryony solve` is made of, flat or in space. */
export interface Answer {
  readonly name?: string | undefined;
  readonly status: 'ok' | 'undetermined' | 'refused';
  readonly [field: string]: unknown;
}

export type Detail = Readonly<Record<string, unknown>>;
export const refusal = (name: string | undefined, code: string, detail: Detail = {}): Answer => ({
  name,
  status: 'refused',
  code,
  detail,
});

/** Whether every number in it is one: what is not would be written as nothing. */
export function isOfNumbers(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  return typeof value !== 'object' || value === null || Object.values(value).every(isOfNumbers);
}

/** What is wrong with a problem that is not of the format: the piece, where it is one, else where. `kinds` are those of evidence that are known there. */
export function findFormatFault(
  raw: unknown,
  issue: { readonly path: readonly PropertyKey[]; readonly message: string } | undefined,
  kinds: ReadonlySet<unknown>,
): [string, Detail] {
  const path = issue?.path ?? [];
  const where = path.map(String).join('.');
  const piece = pieceAt(raw, path);
  if (piece && !kinds.has(piece.kind)) return ['evidence-kind-unknown', { id: piece.id, kind: piece.kind }];
  if (piece) return ['evidence-malformed', { id: piece.id, where, why: issue!.message }];
  return ['problem-malformed', { where, why: issue?.message ?? '' }];
}

/** The piece of evidence that a path leads into, of a problem or of one of its views. */
function pieceAt(raw: unknown, path: readonly PropertyKey[]): Readonly<Record<string, unknown>> | undefined {
  const list = path.indexOf('evidence');
  if (list < 0 || typeof path[list + 1] !== 'number') return undefined;
  const piece = path.slice(0, list + 2).reduce<unknown>((at, key) => (at as Record<PropertyKey, unknown>)[key], raw);
  return typeof piece === 'object' && piece !== null ? (piece as Record<string, unknown>) : {};
}
