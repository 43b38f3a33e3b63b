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

/** What is wrong with a problem that is not of the format: the piece, where it is one, else where. */
export function findFormatFault(
  raw: unknown,
  issue: { readonly path: readonly PropertyKey[]; readonly message: string } | undefined,
  kinds?: ReadonlySet<unknown>,
): [string, Detail] {
  const path = issue?.path ?? [];
  const where = path.map(String).join('.');
  const piece =
    path[0] === 'evidence' && typeof path[1] === 'number'
      ? (raw as { evidence: Record<string, unknown>[] }).evidence[path[1]]
      : undefined;
  if (piece && kinds && !kinds.has(piece.kind)) return ['evidence-kind-unknown', { id: piece.id, kind: piece.kind }];
  if (piece) return ['evidence-malformed', { id: piece.id, where, why: issue!.message }];
  return ['problem-malformed', { where, why: issue?.message ?? '' }];
}
