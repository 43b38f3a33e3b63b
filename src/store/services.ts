import type { z } from 'zod';
import { done, refused, type Result } from '@/core/basics';

export interface AskOptions {
  readonly method?: 'GET' | 'POST';
  readonly body?: unknown;
  readonly signal?: AbortSignal;
  /** ms until the service counts as too slow. */
  readonly patience?: number;
}

const PATIENCE_MS = 8000;
/** A service that is away for a moment is asked again after these, ms. Only what changes nothing is asked twice. */
const AGAIN_MS = [400, 1200];

/**
 * Asks a device or service beside the app. Refused with a code of its own where it gives one, else when it is away (`service-away`), slow (`service-slow`),
 * answers something else than was agreed (`service-nonsense`), or was not waited for (`cancelled`).
 */
export async function askService<T>(place: string, schema: z.ZodType<T>, options: AskOptions = {}): Promise<Result<T>> {
  const waits = options.method === 'POST' ? [] : AGAIN_MS;
  for (let attempt = 0; ; attempt++) {
    const answer = await askOnce(place, schema, options);
    const wait = waits[attempt];
    if (answer.ok || answer.code !== 'service-away' || wait === undefined) return answer;
    await new Promise((resolve) => setTimeout(resolve, wait));
  }
}

async function askOnce<T>(
  place: string,
  schema: z.ZodType<T>,
  { method = 'GET', body, signal, patience = PATIENCE_MS }: AskOptions,
): Promise<Result<T>> {
  const slow = AbortSignal.timeout(patience);
  try {
    const response = await fetch(place, {
      method,
      signal: signal ? AbortSignal.any([slow, signal]) : slow,
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    });
    if (response.status >= 500) return refused('service-away');
    const json: unknown = await response.json();
    if (!response.ok) return refused(codeIn(json) ?? 'service-nonsense');
    const read = schema.safeParse(json);
    return read.success ? done(read.data) : refused('service-nonsense');
  } catch (problem) {
    if (signal?.aborted) return refused('cancelled');
    if (slow.aborted) return refused('service-slow');
    return refused(problem instanceof SyntaxError ? 'service-nonsense' : 'service-away');
  }
}

function codeIn(json: unknown): string | undefined {
  const code = (json as { code?: unknown } | null)?.code;
  return typeof code === 'string' && /^[a-z-]{3,40}$/.test(code) ? code : undefined;
}

/** A picture from a service, as a file. */
export async function fetchPicture(place: string, name: string, signal?: AbortSignal): Promise<Result<File>> {
  try {
    const response = await fetch(place, signal ? { signal } : {});
    if (!response.ok) return refused(response.status >= 500 ? 'service-away' : 'service-nonsense');
    const bytes = await response.blob();
    return bytes.type.startsWith('image/')
      ? done(new File([bytes], name, { type: bytes.type }))
      : refused('service-nonsense');
  } catch {
    return refused(signal?.aborted ? 'cancelled' : 'service-away');
  }
}
