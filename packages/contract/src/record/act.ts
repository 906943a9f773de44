import { z } from 'zod';

/** How an act travels: its method, and its path below `/units/:unitId`, whose parameters are fields of the act. */
export interface ActRoute {
  readonly method: 'POST' | 'PUT' | 'PATCH';
  readonly path: string;
  readonly status: 200 | 201;
  readonly summary: string;
}

/** One sort of act: what it says, which request carries it, and what is said of it in the log before it has words of its own. */
export interface ActKind<Schema extends z.ZodType, Body extends z.ZodType> {
  readonly schema: Schema;
  readonly route: ActRoute;
  /** The body of the request. */
  readonly body: Body;
  /** The body of the request that carries an act. */
  readonly toBody: (act: z.output<Schema>) => z.input<Body>;
}

/** Declares a sort of act, so that schema, request and route follow from one place. */
export const act = <Schema extends z.ZodType, Body extends z.ZodType>(
  kind: ActKind<Schema, Body>,
): ActKind<Schema, Body> => kind;

export const idSchema = z.uuid();
/** The largest whole number that the record keeps. */
export const LARGEST_NUMBER = 2_147_483_647;
export const versionSchema = z
  .number()
  .int()
  .min(0)
  .max(LARGEST_NUMBER)
  .meta({ description: 'The version this write was based on.' });
/** Version of the thing as it was seen, this browser's own acts that are on their way included. */
export const seenSchema = z.number().int().min(0);
export const timeSchema = z.iso.datetime();
/** Made by the page (UUIDv7), so that a thing can be read, corrected and removed before the server has seen it. */
export const ownIdSchema = idSchema.optional();
/** When it was read; now when absent. */
export const takenAtSchema = timeSchema.optional();
export const removeSchema = z.object({ baseVersion: versionSchema });
