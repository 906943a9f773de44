import type { UnitResource } from '@halfsplit/contract';

/** A unit that has only what a test looks at, under the names that a unit has. */
export const partialUnit = (fields: { readonly [Key in keyof UnitResource]?: unknown }): UnitResource =>
  fields as UnitResource;
