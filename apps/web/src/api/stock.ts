import type { Needed, StockItem, StockRow } from '@zemble/contract';
import { isSameSort, stockText } from '@zemble/core';
import type { StockEntry } from './drawer.ts';

/** The drawer as it will be when the server has the entry. */
export function applyStock(rows: readonly StockRow[], entry: StockEntry): readonly StockRow[] {
  switch (entry.type) {
    case 'add-stock':
      return entry.items.reduce(putIn, rows);
    case 'put-out':
      return entry.item ? putIn(rows, entry.item) : rows;
    case 'change-stock': {
      const { id, seen, item } = entry;
      // One further than what was seen: the next change is on top of this one.
      return rows.map((row) =>
        row.id === id && row.version <= seen ? { ...item, id, version: seen + 1 } : row,
      );
    }
    case 'remove-stock':
      return rows.filter(({ id }) => id !== entry.id);
  }
}

function putIn(rows: readonly StockRow[], item: StockItem & { readonly id: string }): readonly StockRow[] {
  const same = rows.findIndex((row) => isSameSort(row, item));
  const row = rows[same];
  if (!row) return [...rows, { ...item, version: 0 }];
  return rows.with(same, { ...row, count: row.count + item.count, version: row.version + 1 });
}

/** What came out of units without what is on its way into the drawer, or away. */
export const withoutPut = (out: readonly Needed[], entries: readonly StockEntry[]): readonly Needed[] =>
  out.filter(
    (needed) =>
      !entries.some(
        (entry) =>
          entry.type === 'put-out' &&
          entry.unitId === needed.unitId &&
          entry.changeId === needed.changeId &&
          entry.ref === needed.ref,
      ),
  );

/** What somebody entered into the drawer, in a few words. */
export function stockEntryWords(entry: StockEntry): string {
  switch (entry.type) {
    case 'add-stock': {
      const named = entry.items.slice(0, MOST_NAMED).map(stockItemWords).join('; ');
      const more = entry.items.length - MOST_NAMED;
      return `Put in: ${named}${more > 0 ? ` and ${more} more` : ''}.`;
    }
    case 'change-stock':
      return stockItemWords(entry.item);
    case 'remove-stock':
      return `Take ${stockItemWords(entry.item)} out of the list.`;
    case 'put-out':
      return entry.item
        ? `Keep ${entry.ref}: ${stockItemWords(entry.item)}.`
        : `${entry.ref} was thrown away.`;
  }
}
const MOST_NAMED = 5;

/** An item as it is said: "50 of 4.7 kΩ, resistor, 1 %, in A3". */
export function stockItemWords(item: StockItem): string {
  const more = [
    item.kind,
    item.tolerance === undefined ? '' : `${Number((100 * item.tolerance).toPrecision(3))} %`,
    item.voltage === undefined ? '' : `${item.voltage} V`,
    item.power === undefined ? '' : `${item.power} W`,
    item.technology ?? '',
    item.place === '' ? '' : `in ${item.place}`,
  ].filter((w) => w !== '');
  return `${item.count} of ${stockText(item)}, ${more.join(', ')}`;
}
