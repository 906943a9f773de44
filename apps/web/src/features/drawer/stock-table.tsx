import { PART_KINDS, type StockRow } from '@zemble/contract';
import { KINDS, stockText } from '@zemble/core';
import { Input } from 'antd';
import { useState } from 'react';
import { useWorkshopChange } from '../../api/outbox-context.tsx';
import { changeStock, removeStock } from '../../api/drawer.ts';
import { NumberField } from '../../ui/number-field.tsx';
import styles from './drawer.module.css';

interface StockTableProps {
  readonly items: readonly StockRow[];
  /** Parts of an item that planned changes need, by its id. */
  readonly reserved: ReadonlyMap<string, number>;
}

/** Items shown at once: a search narrows down the rest. */
const MOST_SHOWN = 300;
const MOST_COUNTED = 1_000_000;

/** The items of the drawer; count and place are corrected where they stand. */
export function StockTable({ items, reserved }: StockTableProps) {
  const change = useWorkshopChange();
  const sorted = [...items].sort(byKindAndValue).slice(0, MOST_SHOWN);
  return (
    <div className={styles.table}>
      <table className="zb-table">
        <thead>
          <tr>
            <th className="zb-right">Value</th>
            <th>Kind</th>
            <th className={`zb-right ${styles.wide}`}>Tolerance</th>
            <th className={`zb-right ${styles.wide}`}>Rating</th>
            <th className={styles.wide}>Technology</th>
            <th className="zb-right">Count</th>
            <th className="zb-right">Reserved</th>
            <th>Place</th>
            <th aria-label="Actions" />
          </tr>
        </thead>
        <tbody>
          {sorted.map((item) => {
            const name = `${stockText(item)}${item.place === '' ? '' : ` in ${item.place}`}`;
            const held = reserved.get(item.id) ?? 0;
            return (
              <tr key={item.id}>
                <td className="zb-number zb-mono">{stockText(item)}</td>
                <td>{KINDS[item.kind].words}</td>
                <td className={`zb-number ${styles.wide}`}>
                  {item.tolerance === undefined ? '' : `${Number((100 * item.tolerance).toPrecision(3))} %`}
                </td>
                <td className={`zb-number ${styles.wide}`}>{ratingText(item)}</td>
                <td className={styles.wide}>{item.technology}</td>
                <td className="zb-number">
                  <label className={styles.count}>
                    <span className="zb-sr">Count of {name}</span>
                    <NumberField
                      value={item.count}
                      min={0}
                      max={MOST_COUNTED}
                      onDone={(count) =>
                        count !== null && Number.isInteger(count) && change(changeStock(item, { count }))
                      }
                    />
                  </label>
                </td>
                <td className={held > item.count ? 'zb-number zb-out' : 'zb-number'}>
                  {held === 0 ? '' : held}
                </td>
                <td>
                  <Place item={item} name={name} onDone={(place) => change(changeStock(item, { place }))} />
                </td>
                <td className="zb-right">
                  <button
                    className="zb-icon"
                    aria-label={`Take ${name} out of the list`}
                    onClick={() => change(removeStock(item))}
                  >
                    ×
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {items.length > MOST_SHOWN && (
        <p className="zb-dim">{`The first ${MOST_SHOWN} of ${items.length}; look for what you need above.`}</p>
      )}
    </div>
  );
}

const ratingText = ({ voltage, power }: StockRow): string =>
  [voltage === undefined ? '' : `${voltage} V`, power === undefined ? '' : `${power} W`]
    .filter((w) => w !== '')
    .join(' ');

/** Kinds together as they are listed everywhere, values ascending, types by name. */
function byKindAndValue(a: StockRow, b: StockRow): number {
  if (a.kind !== b.kind) return PART_KINDS.indexOf(a.kind) - PART_KINDS.indexOf(b.kind);
  if (typeof a.value === 'number' && typeof b.value === 'number') return a.value - b.value;
  return String(a.value).localeCompare(String(b.value));
}

/** Where an item lies, which can be written over. */
function Place({
  item,
  name,
  onDone,
}: {
  readonly item: StockRow;
  readonly name: string;
  readonly onDone: (place: string) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const done = () => {
    const place = text?.trim();
    setText(null);
    if (place !== undefined && place !== item.place) onDone(place);
  };
  return (
    <Input
      size="small"
      variant="borderless"
      className={styles.place}
      aria-label={`Place of ${name}`}
      value={text ?? item.place}
      maxLength={80}
      placeholder="where"
      onChange={(event) => setText(event.target.value)}
      onPressEnter={done}
      onBlur={done}
    />
  );
}
