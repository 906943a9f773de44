import { ZembleError } from '../../base/errors/index.ts';

/** What a computation gives, or null where the circuit cannot be computed: a step is worth saying without its number too. */
export function computed<T>(compute: () => T): T | null {
  try {
    return compute();
  } catch (error) {
    if (error instanceof ZembleError) return null;
    throw error;
  }
}
