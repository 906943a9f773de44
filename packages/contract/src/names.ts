import { z } from 'zod';

/** The four values a part can have, in the order in which a missing one falls back to the one before. */
export const LAYERS = ['marked', 'found', 'planned', 'proven'] as const;
export const layerSchema = z.enum(LAYERS);
export type Layer = z.infer<typeof layerSchema>;

/** Layers of which a part has a value of its own. What is planned for it is a change; a file may have it with the part. */
export type ValueLayer = Exclude<Layer, 'planned'>;

/** The stages of the work on one unit, in order. */
export const STAGES = ['intake', 'trace', 'find', 'measure', 'rework', 'build', 'prove', 'log'] as const;
export const stageSchema = z.enum(STAGES);
export type Stage = z.infer<typeof stageSchema>;

/** Where a unit is: worked on, put away, or deleted, from where it can be brought back for a while. */
export const UNIT_PLACES = ['bench', 'away', 'deleted'] as const;
export const unitPlaceSchema = z.enum(UNIT_PLACES);
export type UnitPlace = z.infer<typeof unitPlaceSchema>;
/** A deleted unit is forgotten after this time, days. */
export const DELETED_DAYS = 30;
