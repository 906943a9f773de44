import { z } from 'zod';

/** The four values a part can have, in the order in which a missing one falls back to the one before. */
export const LAYERS = ['marked', 'found', 'planned', 'proven'] as const;
export const layerSchema = z.enum(LAYERS);
export type Layer = z.infer<typeof layerSchema>;

export const PART_KINDS = [
  'resistor',
  'potentiometer',
  'capacitor',
  'inductor',
  'transformer',
  'switch',
  'jumper',
  'fuse',
  'load',
  'speaker',
  'headphone',
  'diode',
  'zener',
  'led',
  'bjt',
  'jfet',
  'mosfet',
  'triode',
  'pentode',
  'opamp',
  'timer555',
  'capsule',
  'supply',
  'signal',
  'box',
] as const;
export const partKindSchema = z.enum(PART_KINDS);
export type PartKind = z.infer<typeof partKindSchema>;

/** The stages of the work on one unit, in order. */
export const STAGES = ['intake', 'trace', 'find', 'measure', 'rework', 'build', 'prove', 'log'] as const;
export const stageSchema = z.enum(STAGES);
export type Stage = z.infer<typeof stageSchema>;

/** What can hurt in a unit; decides which cautions are shown and which tests are offered. */
export const HAZARDS = [
  'mains',
  'switch-mode primary',
  'valve high tension',
  'large capacitors',
  'lithium',
  'hot parts',
  'battery only',
] as const;
