import {
  addStockSchema,
  drawerSchema,
  needsSchema,
  putOutSchema,
  stockItemSchema,
  type DrawerResource,
  type Needed,
  type NeedsResource,
  type StockItem,
  type StockRow,
} from '@zemble/contract';
import { z } from 'zod';
import { ask } from './client.ts';
import { newId } from './new-id.ts';

export const DRAWER_KEY = '/drawer';
export const NEEDS_KEY = '/drawer/needs';
/** Where entries of the drawer go, as those of a unit go to its lane. */
export const DRAWER_LANE = 'drawer';

export const getDrawer = (): Promise<DrawerResource> => ask('GET', DRAWER_KEY, drawerSchema);
export const getNeeds = (): Promise<NeedsResource> => ask('GET', NEEDS_KEY, needsSchema);

/** What a page enters into the drawer. */
export const stockEntrySchema = z.union([
  /** Items that are put in: one that is there in the same place is counted up. */
  addStockSchema.extend({ type: z.literal('add-stock') }),
  z.object({ type: z.literal('change-stock'), id: z.uuid(), seen: z.number().int(), item: stockItemSchema }),
  z.object({ type: z.literal('remove-stock'), id: z.uuid(), seen: z.number().int(), item: stockItemSchema }),
  /** A part that came out of a unit is kept, or thrown away. */
  putOutSchema.extend({ type: z.literal('put-out') }),
]);
export type StockEntry = z.infer<typeof stockEntrySchema>;

const STOCK_TYPES: ReadonlySet<string> = new Set(['add-stock', 'change-stock', 'remove-stock', 'put-out']);
/** Whether an entry is of the drawer, and not of a unit. */
export const isStockEntry = (entry: { readonly type: string }): entry is StockEntry =>
  STOCK_TYPES.has(entry.type);

const itemOf = ({ id: _id, version: _version, ...item }: StockRow): StockItem => item;

export const addStock = (items: readonly StockItem[]): StockEntry => ({
  type: 'add-stock',
  items: items.map((item) => ({ ...item, id: newId() })),
});
/** Changes a row that is shown: its count, or its place. */
export const changeStock = (row: StockRow, values: Partial<StockItem>): StockEntry => ({
  type: 'change-stock',
  id: row.id,
  seen: row.version,
  item: { ...itemOf(row), ...values },
});
export const removeStock = (row: StockRow): StockEntry => ({
  type: 'remove-stock',
  id: row.id,
  seen: row.version,
  item: itemOf(row),
});
/** Keeps a part that came out of a unit, or says that it was thrown away. */
export const putOut = (
  { unitId, changeId, ref }: Pick<Needed, 'unitId' | 'changeId' | 'ref'>,
  item: StockItem | null,
): StockEntry => ({
  type: 'put-out',
  unitId,
  changeId,
  ref,
  item: item && { ...item, id: newId() },
});

/** The request that carries an entry of the drawer. */
export function stockRequest(entry: StockEntry): { path: string; body: unknown } {
  switch (entry.type) {
    case 'add-stock':
      return { path: '/drawer/items', body: { items: entry.items } };
    case 'change-stock':
      return { path: `/drawer/items/${entry.id}`, body: { version: entry.seen, item: entry.item } };
    case 'remove-stock':
      return { path: `/drawer/items/${entry.id}/remove`, body: { version: entry.seen } };
    case 'put-out': {
      const { type: _type, ...body } = entry;
      return { path: '/drawer/out', body };
    }
  }
}
