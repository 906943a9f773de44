import { z } from 'zod';
import { refSchema } from './part-schema.ts';

/** The largest panel or part that is drawn, mm. */
const LARGEST_MM = 2000;
const sizeSchema = z
  .number('A size is a number of millimetres.')
  .positive('A size is above zero.')
  .max(LARGEST_MM, `A size is at most ${LARGEST_MM} mm.`);
const placeMmSchema = z.object({
  x: z.number().min(-LARGEST_MM).max(LARGEST_MM),
  y: z.number().min(-LARGEST_MM).max(LARGEST_MM),
});

/** A control of a panel: its hole, and its body under the panel. */
export const panelControlSchema = z.looseObject({
  id: z.string().trim().min(1).max(64),
  /** The part that it is. */
  ref: refSchema.optional(),
  name: z.string().trim().max(80).optional(),
  /** Middle of its hole, mm. */
  at: placeMmSchema,
  holeMm: sizeSchema,
  /** Its body under the panel, along x and y. */
  lengthMm: sizeSchema,
  widthMm: sizeSchema,
  /** How far it reaches down from the panel's underside, lugs and all. */
  depthMm: sizeSchema,
}) as z.ZodType<PanelControl, PanelControl>;
/** A place in millimetres. */
export interface PlaceMm {
  readonly x: number;
  readonly y: number;
}
export interface PanelControl {
  readonly id: string;
  readonly ref?: string | undefined;
  readonly name?: string | undefined;
  readonly at: PlaceMm;
  readonly holeMm: number;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly depthMm: number;
}

/** Something tall that stands under a panel and is on no board: a transformer, a battery, a part seen on the photo. */
export const panelObstacleSchema = z.looseObject({
  id: z.string().trim().min(1).max(64),
  ref: refSchema.optional(),
  name: z.string().trim().max(80).optional(),
  at: placeMmSchema,
  lengthMm: sizeSchema,
  widthMm: sizeSchema,
  /** Above the board's surface. */
  heightMm: sizeSchema,
}) as z.ZodType<PanelObstacle, PanelObstacle>;
export interface PanelObstacle {
  readonly id: string;
  readonly ref?: string | undefined;
  readonly name?: string | undefined;
  readonly at: PlaceMm;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A lid or panel with its controls over what stands under it, seen from above; x to the right and y down, mm. */
export const panelSchema = z.looseObject({
  id: z.string().trim().min(1).max(64),
  name: z.string().trim().max(120).optional(),
  widthMm: sizeSchema,
  heightMm: sizeSchema,
  /** From the board's surface up to the underside of the panel. */
  gapMm: sizeSchema,
  controls: z.array(panelControlSchema).max(200),
  obstacles: z.array(panelObstacleSchema).max(500).optional(),
  /** The board under it: where its hole 0, 0 is, and its quarter turns. */
  board: z
    .object({ id: z.string().max(64), at: placeMmSchema, quarters: z.number().int().min(0).max(3) })
    .optional(),
  /** The photo under it: two places on it, in fractions of its width and height, the distance between them, and where its upper left corner is, mm. */
  photo: z
    .object({
      photoId: z.string().max(64),
      from: z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }),
      to: z.object({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }),
      mm: sizeSchema,
      at: placeMmSchema.optional(),
    })
    .optional(),
}) as z.ZodType<Panel, Panel>;
export interface Panel {
  readonly id: string;
  readonly name?: string | undefined;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly gapMm: number;
  readonly controls: readonly PanelControl[];
  readonly obstacles?: readonly PanelObstacle[] | undefined;
  readonly board?: { readonly id: string; readonly at: PlaceMm; readonly quarters: number } | undefined;
  readonly photo?:
    | {
        readonly photoId: string;
        readonly from: PlaceMm;
        readonly to: PlaceMm;
        readonly mm: number;
        readonly at?: PlaceMm | undefined;
      }
    | undefined;
}
export const panelsSchema = z.array(panelSchema).max(20);
