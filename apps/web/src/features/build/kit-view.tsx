import {
  bodyOf,
  isOfPackage,
  needsOf,
  partsList,
  printedParts,
  stockText,
  type PartsListLine,
} from '@zemble/core';
import { Button, Checkbox } from 'antd';
import { useMemo, useState, type ReactNode } from 'react';
import { OneOf } from '../../ui/one-of.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { CircuitPanel } from '../circuit/index.ts';
import { useDrawer } from '../drawer/index.ts';
import styles from './wiring.module.css';

const ORDERS = ['As drawn', 'By height'] as const;
type Order = (typeof ORDERS)[number];
const WHOLE = 'The whole unit';
const EXTENTS = ['This work', WHOLE] as const;
type Extent = (typeof EXTENTS)[number];

/** What the work needs, or all that the unit is built from: counts, places in the drawer, what must be bought; ticked as it is picked. */
export function KitView({ tabs }: { readonly tabs: ReactNode }) {
  const { unit, document, change } = useUnitContext();
  const { items } = useDrawer();
  const { selectRef } = useSelection();
  const [order, setOrder] = useState<Order>('As drawn');
  const needed = useMemo(() => new Set(needsOf(document.circuit).map((n) => n.ref)), [document.circuit]);
  const [extent, setExtent] = useState<Extent>('This work');
  const isWhole = extent === WHOLE || needed.size === 0;
  const parts = useMemo(() => {
    const all = printedParts(document.circuit, 'planned');
    return isWhole ? all : all.filter((p) => needed.has(p.ref));
  }, [document.circuit, isWhole, needed]);
  const lines = useMemo(() => partsList(parts, items ?? []), [parts, items]);
  const height = (line: PartsListLine) => {
    const part = parts.find((p) => line.refs.some((ref) => isOfPackage(p.ref, ref)));
    return part ? bodyOf(part).heightMm : 0;
  };
  const shown = order === 'By height' ? [...lines].sort((a, b) => height(a) - height(b)) : lines;
  const idOf = (line: PartsListLine) => `pick:${line.refs.join('+')}`.slice(0, 200);
  const total = lines.reduce((sum, l) => sum + l.count, 0);
  const buy = lines.reduce((sum, l) => sum + l.buy, 0);
  return (
    <div className="zb-split">
      <section className="zb-panel zb-sheet" aria-label="Parts list">
        <header className="zb-panel-head">
          {tabs}
          <span className="zb-grow" />
          <Button size="small" type="text" onClick={() => window.print()}>
            Print
          </Button>
        </header>
        <div className={styles.choice}>
          {needed.size > 0 && (
            <OneOf label="Extent of the list" options={EXTENTS} value={extent} onChange={setExtent} />
          )}{' '}
          <OneOf label="Order of the list" options={ORDERS} value={order} onChange={setOrder} />{' '}
          <span className="zb-dim">
            {total} {isWhole ? 'parts as planned' : 'parts for what is planned'},{' '}
            {buy === 0 ? 'all of them in the drawer' : `${buy} to buy`}
          </span>
        </div>
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="Parts list, scrolls">
          <table className={styles.table}>
            <thead>
              <tr>
                <th aria-label="Picked" />
                <th>count</th>
                <th>part</th>
                <th>for</th>
                <th>from the drawer</th>
                <th>buy</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((line) => {
                const id = idOf(line);
                return (
                  <tr key={id} onClick={() => selectRef(line.refs[0] ?? null)}>
                    <td>
                      <Checkbox
                        checked={Object.hasOwn(unit.ticks, id)}
                        aria-label={`Picked: ${line.words}`}
                        onChange={(event) =>
                          change({
                            type: 'tick-step',
                            id,
                            words: `Picked ${line.count} ${line.words}.`,
                            isDone: event.target.checked,
                            at: new Date().toISOString(),
                          })
                        }
                      />
                    </td>
                    <td className="zb-number">{line.count}</td>
                    <td>
                      {line.words}
                      {line.substitutes.map((sentence) => (
                        <div key={sentence} className="zb-dim">
                          {sentence}
                        </div>
                      ))}
                    </td>
                    <td className="zb-mono">{line.refs.join(' ')}</td>
                    <td>
                      {line.from.map(({ item, count }) => (
                        <div key={`${stockText(item)} ${item.place}`}>
                          {count} at {item.place || 'no place'}
                        </div>
                      ))}
                    </td>
                    <td className="zb-number">{line.buy === 0 ? '' : line.buy}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      </section>
      <CircuitPanel hasOffers={false} />
    </div>
  );
}
