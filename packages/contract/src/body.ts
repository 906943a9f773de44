import { z } from 'zod';

/** The longest body and the widest spacing of leads that are taken, mm. */
const LARGEST_MM = 300;
const mmSchema = z
  .number('A size is a number of millimetres.')
  .positive('A size is above zero.')
  .max(LARGEST_MM, `A size is at most ${LARGEST_MM} mm.`);

/** The size of a part where it is not what its kind and rating usually have, mm. */
export const bodySchema = z.looseObject({
  lengthMm: mmSchema.optional(),
  widthMm: mmSchema.optional(),
  heightMm: mmSchema.optional(),
  /** Distance of neighbouring leads. */
  leadPitchMm: mmSchema.optional(),
});
export interface BodySize {
  readonly lengthMm?: number | undefined;
  readonly widthMm?: number | undefined;
  readonly heightMm?: number | undefined;
  readonly leadPitchMm?: number | undefined;
}
