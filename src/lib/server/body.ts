/** The body of a request as JSON, for routes that take a large one. */
import { parsed } from '../../../core/read.ts';

/** @returns undefined where it is no JSON, or nested deeper than anything that is made here */
export async function bodyOf(request: Request): Promise<unknown> {
  const text = await request.text();
  try {
    return parsed(text);
  } catch {
    return undefined;
  }
}
