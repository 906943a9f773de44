import {
  drawerSchema,
  needsSchema,
  stockRowSchema,
  type DrawerResource,
  type NeedsResource,
  type StockItem,
  type StockRow,
} from '@zemble/contract';
import { z } from 'zod';
import { ask } from './client.ts';
import { newId } from './outbox-store.ts';

export const DRAWER_KEY = '/drawer';
export const NEEDS_KEY = '/drawer/needs';

export const getDrawer = (): Promise<DrawerResource> => ask('GET', DRAWER_KEY, drawerSchema);
export const getNeeds = (): Promise<NeedsResource> => ask('GET', NEEDS_KEY, needsSchema);

const done = z.object({ ok: z.literal(true) });

/** An item on its way into the drawer: sent again under its id, it is counted once. */
export type NewStock = StockItem & { readonly id: string };
export const asNew = (item: StockItem, id: string = newId()): NewStock => ({ ...item, id });

/** Puts items into the drawer; an item that is there in the same place is counted up. */
export const addStock = (items: readonly NewStock[]): Promise<unknown> =>
  ask('POST', '/drawer/items', done, { items });

export const changeStock = ({ id, version, ...item }: StockRow): Promise<StockRow> =>
  ask('POST', `/drawer/items/${id}`, stockRowSchema, { version, item });

export const removeStock = ({ id, version }: StockRow): Promise<unknown> =>
  ask('POST', `/drawer/items/${id}/remove`, done, { version });

/** Keeps a part that came out of a unit, or says that it was thrown away. */
export const keepOut = (
  out: { readonly unitId: string; readonly changeId: string; readonly ref: string },
  item: StockItem | null,
): Promise<unknown> => ask('POST', '/drawer/out', done, { ...out, item: item && asNew(item) });
