import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, type ReactNode, type RefObject } from 'react';

/** A list of at most so many is there whole: it is found by the browser's own search, and scrolls without a thought. */
const WHOLE = 120;
/** Rows beyond those seen that are there all the same. */
const BEYOND = 12;
/** Height that a row is taken to have until it is seen, px. */
const ROW_PX = 29;
/** Height of the window before the list is laid out, px. */
const FIRST_WINDOW = { width: 0, height: 900 };

interface VirtualRowsProps<T> {
  readonly items: readonly T[];
  readonly keyOf: (item: T) => string;
  /** What scrolls around the table. */
  readonly scroller: RefObject<HTMLElement | null>;
  /** Columns of the table. */
  readonly columns: number;
  /** The item that is kept in sight when it changes; -1 for none. */
  readonly current: number;
  /** The rows of one item. */
  readonly children: (item: T) => ReactNode;
}

/** The rows of a long table: only those in sight are there, each item a body of its own. */
export function VirtualRows<T>({ items, keyOf, scroller, columns, current, children }: VirtualRowsProps<T>) {
  // This component itself renders anew whenever the list scrolls; nothing of it is handed on.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    getItemKey: (i) => keyOf(items[i]!),
    estimateSize: () => ROW_PX,
    overscan: items.length <= WHOLE ? items.length : BEYOND,
    initialRect: FIRST_WINDOW,
  });
  useEffect(() => {
    if (current >= 0) rows.scrollToIndex(current, { align: 'auto' });
    // Kept in sight when another one is current, not whenever the list scrolls.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [current]);
  const shown = rows.getVirtualItems();
  const before = shown[0]?.start ?? 0;
  const after = rows.getTotalSize() - (shown.at(-1)?.end ?? 0);
  const space = (height: number) =>
    height > 0 && (
      <tbody aria-hidden>
        <tr>
          <td colSpan={columns} style={{ height, padding: 0, border: 0 }} />
        </tr>
      </tbody>
    );
  return (
    <>
      {space(before)}
      {shown.map(({ index, key }) => (
        <tbody key={String(key)} data-index={index} ref={rows.measureElement}>
          {children(items[index]!)}
        </tbody>
      ))}
      {space(after)}
    </>
  );
}
