import { z } from 'zod';
import { PART_KINDS } from './parts/index.ts';
import { TECHNOLOGIES } from './parts/part.ts';

/** What there is of one sort of part in one place of the workshop. */
export const stockItemSchema = z.strictObject({
  kind: z.enum(PART_KINDS),
  /** The main value in its SI unit, or a type. */
  value: z.union([z.number().positive(), z.string().trim().min(1).max(80)]),
  /** Fraction either way. */
  tolerance: z.number().min(0).max(10).optional(),
  /** Rated voltage, V. */
  voltage: z.number().positive().optional(),
  /** Rated power, W. */
  power: z.number().positive().optional(),
  technology: z.enum(TECHNOLOGIES).optional(),
  count: z.number().int().min(0).max(1_000_000),
  /** Where it lies: "A3". */
  place: z.string().trim().max(80),
});
export type StockItem = z.infer<typeof stockItemSchema>;

/** An item of the drawer as it is kept. */
export const stockRowSchema = stockItemSchema.extend({ id: z.uuid(), version: z.number().int() });
export type StockRow = z.infer<typeof stockRowSchema>;

/** The whole drawer. */
export const drawerSchema = z.strictObject({ items: z.array(stockRowSchema) });
export type DrawerResource = z.infer<typeof drawerSchema>;

/** Items that are put in, each with an id made by the page, so that one that is sent twice is there once. */
export const addStockSchema = z.strictObject({
  items: z
    .array(stockItemSchema.extend({ id: z.uuid() }))
    .min(1)
    .max(20_000),
});
export const changeStockSchema = z.strictObject({ version: z.number().int(), item: stockItemSchema });
export const removeStockSchema = z.strictObject({ version: z.number().int() });

/** A part that a planned change of a unit needs, or that one took out of it. */
const neededSchema = z.strictObject({
  unitId: z.uuid(),
  unitName: z.string(),
  changeId: z.string(),
  changeName: z.string(),
  ref: z.string(),
  kind: z.enum(PART_KINDS),
  value: z.union([z.number(), z.string()]),
  tolerance: z.number().optional(),
  voltage: z.number().optional(),
  power: z.number().optional(),
  technology: z.enum(TECHNOLOGIES).optional(),
});
export type Needed = z.infer<typeof neededSchema>;

/** What all units on the bench need of the drawer, and what came out of them and is not put away yet. */
export const needsSchema = z.strictObject({ needs: z.array(neededSchema), out: z.array(neededSchema) });
export type NeedsResource = z.infer<typeof needsSchema>;

/** What became of a part that came out: kept as an item, or thrown away. */
export const putOutSchema = z.strictObject({
  unitId: z.uuid(),
  changeId: z.string().min(1).max(64),
  ref: z.string().min(1).max(64),
  item: stockItemSchema.extend({ id: z.uuid() }).nullable(),
});

/** Most sorts of parts in a drawer. */
export const MOST_STOCK = 20_000;
