import type { Needed, StockItem, StockRow } from '@zemble/contract';
import { stockText, substitutesFor } from '@zemble/core';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useNotices } from '../../ui/notices.tsx';
import { putOut } from '../../api/drawer.ts';
import { useWorkshopChange } from '../../api/outbox-context.tsx';
import { copyText } from '../../ui/copy-text.ts';
import type { SupplyView } from './use-supply.ts';
import styles from './drawer.module.css';

interface NeedsProps {
  readonly supply: SupplyView;
  readonly drawer: readonly StockRow[];
}

/** What must be bought for all that is planned, what is reserved for it, and what came out of the units. */
export function Needs({ supply, drawer }: NeedsProps) {
  const notices = useNotices();
  const toBuy = supply.supplies.filter((s) => s.buy > 0);
  const there = supply.supplies.filter((s) => s.reserved.length > 0);
  const copy = async () => {
    const lines = toBuy.map((s) => `${s.buy} × ${stockText(s.wanted)}${ratingWords(s.wanted)}`);
    await copyText(lines.join('\n'));
    notices.success({ title: 'The list is on the clipboard.' });
  };
  return (
    <aside className={styles.needs} aria-label="Needed">
      <section aria-label="To buy">
        <div className={styles.head}>
          <h2>To buy</h2>
          {toBuy.length > 0 && (
            <Button size="small" onClick={() => void copy()}>
              Copy the list
            </Button>
          )}
        </div>
        {toBuy.length === 0 && (
          <p className="zb-dim">
            {supply.supplies.length === 0
              ? 'Nothing is planned that needs a part.'
              : 'Everything that is planned is here.'}
          </p>
        )}
        <ul>
          {toBuy.map((s) => (
            <li key={keyOf(s.needs)} className={styles.need}>
              <span>
                <strong>
                  {s.buy} × {stockText(s.wanted)}
                </strong>{' '}
                <span className="zb-dim">
                  {s.wanted.kind}
                  {ratingWords(s.wanted)}
                </span>
              </span>
              <For needs={s.needs} />
              {substitutesFor(s.wanted, drawer).map((sentence) => (
                <span key={sentence} className="zb-edge">
                  {sentence}
                </span>
              ))}
            </li>
          ))}
        </ul>
      </section>
      {there.length > 0 && (
        <section aria-label="Reserved">
          <h2>Reserved</h2>
          <ul>
            {there.map((s) => (
              <li key={keyOf(s.needs)} className={styles.need}>
                <span>
                  <strong>{stockText(s.wanted)}</strong>{' '}
                  {s.reserved.map(({ item, count }) => `${count} of ${placeOf(item)}`).join(', ')}
                </span>
                <For needs={s.needs} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {supply.out.length > 0 && (
        <section aria-label="Came out">
          <h2>Came out</h2>
          <p className="zb-hint">Keep what is good; what was the fault goes.</p>
          <ul>
            {supply.out.map((out) => (
              <CameOut key={keyOf([out])} out={out} />
            ))}
          </ul>
        </section>
      )}
    </aside>
  );
}

const keyOf = (needs: readonly Needed[]): string =>
  needs.map((n) => `${n.unitId} ${n.changeId} ${n.ref}`).join();

const placeOf = (item: StockItem): string => (item.place === '' ? 'the drawer' : item.place);

function ratingWords({ voltage, power, tolerance, technology }: Partial<StockItem>): string {
  const words = [
    voltage === undefined ? '' : `${voltage} V`,
    power === undefined ? '' : `${power} W`,
    tolerance === undefined ? '' : `${Number((100 * tolerance).toPrecision(3))} %`,
    technology ?? '',
  ].filter((w) => w !== '');
  return words.length === 0 ? '' : `, ${words.join(', ')}`;
}

/** Which parts of which units it is for. */
function For({ needs }: { readonly needs: readonly Needed[] }) {
  const units = [...new Set(needs.map((n) => n.unitId))];
  return (
    <span className="zb-dim">
      for{' '}
      {units.map((id, i) => {
        const own = needs.filter((n) => n.unitId === id);
        return (
          <span key={id}>
            {i > 0 && ', '}
            {own.map((n) => n.ref).join(', ')} of <Link to={`/units/${id}/rework`}>{own[0]!.unitName}</Link>
          </span>
        );
      })}
    </span>
  );
}

/** A part that came out: into the drawer, or away. */
function CameOut({ out }: { readonly out: Needed }) {
  const change = useWorkshopChange();
  const [place, setPlace] = useState('');
  const { unitId: _u, changeId: _c, ref, unitName, changeName: _n, ...what } = out;
  const put = (item: StockItem | null) => change(putOut(out, item));
  const name = `${ref} of ${unitName}`;
  return (
    <li className={styles.need}>
      <span>
        <strong>{stockText(out)}</strong> <span className="zb-dim">{name}</span>
      </span>
      <span className={styles.out}>
        <Input
          size="small"
          aria-label={`Place for ${name}`}
          placeholder="where"
          value={place}
          maxLength={80}
          onChange={(event) => setPlace(event.target.value)}
          onPressEnter={() => put({ ...what, count: 1, place: place.trim() })}
        />
        <Button
          size="small"
          aria-label={`Keep ${name}`}
          onClick={() => put({ ...what, count: 1, place: place.trim() })}
        >
          Keep
        </Button>
        <Button size="small" type="text" aria-label={`Throw ${name} away`} onClick={() => put(null)}>
          Throw away
        </Button>
      </span>
    </li>
  );
}
