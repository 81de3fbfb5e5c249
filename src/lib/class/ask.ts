/** Asks the server, and answers with what it says, or with a sentence on what went wrong. */
import { silent } from '../ui/silent.ts';

export type Answer<T> = { ok: true; value: T } | { ok: false; problem: string };
export async function ask<T = undefined>(
  path: string,
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE' = 'GET',
  body?: object
): Promise<Answer<T>> {
  try {
    const answer = await fetch(path, {
      method,
      ...(body ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {})
    });
    const text = await answer.text();
    const value: unknown = text ? JSON.parse(text) : undefined;
    return answer.ok
      ? { ok: true, value: value as T }
      : { ok: false, problem: (value as { message?: string } | undefined)?.message ?? silent() };
  } catch {
    return { ok: false, problem: silent() };
  }
}
