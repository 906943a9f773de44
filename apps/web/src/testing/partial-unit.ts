import type { UnitResource } from '@zemble/contract';

/** A unit that has only what a test looks at, under the names that a unit has; nothing is changed in it. */
export const partialUnit = (fields: { readonly [Key in keyof UnitResource]?: unknown }): UnitResource =>
  ({
    changes: [],
    sets: [],
    beeps: [],
    wires: [],
    boards: [],
    panels: [],
    ticks: {},
    ...fields,
  }) as UnitResource;
