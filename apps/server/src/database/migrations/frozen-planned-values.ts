import { randomUUID } from 'node:crypto';

// As it was when the migration that uses it was written: what a database went through stays as it was.

/** A part of an older record that had a planned value of its own. */
interface PlannedPart {
  readonly unitId: string;
  readonly ref: string;
  readonly planned: unknown;
}

/**
 * What was planned for parts of an older record, as the changes that it is now: a fit each, of purpose repair, still planned.
 */
export function plannedChanges(parts: readonly PlannedPart[]) {
  const places = new Map<string, number>();
  return parts.flatMap(({ unitId, ref, planned }) => {
    if (planned === null || planned === undefined) return [];
    const position = places.get(unitId) ?? 0;
    places.set(unitId, position + 1);
    const id = randomUUID();
    const definition = {
      id,
      name: `Other value of ${ref}`,
      purpose: 'repair',
      state: 'planned',
      steps: [{ do: 'fit', ref, value: planned as number | string }],
    };
    return [{ id, unitId, version: 0, position, definition, removedAt: null }];
  });
}
