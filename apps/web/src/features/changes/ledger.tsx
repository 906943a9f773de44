import { PaperClipOutlined } from '@ant-design/icons';
import { openThings, type OpenThing } from '@zemble/core';
import { Button, Drawer } from 'antd';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useChangeActions, useLedger } from './use-changes.ts';
import { whenWords } from '../../ui/when.ts';
import styles from './changes.module.css';

/** How many temporary changes are in force, always in sight; a press asks whether everything is back. */
export function LedgerButton() {
  const ledger = useLedger();
  const [isOpen, setIsOpen] = useState(false);
  const count = ledger.length;
  return (
    <>
      <Button
        size="small"
        type={count > 0 ? 'default' : 'text'}
        className={count > 0 ? `${styles.ledger} ${styles.ledgerOpen}` : styles.ledger}
        icon={<PaperClipOutlined aria-hidden />}
        onClick={() => setIsOpen(true)}
        aria-label={`Ledger: ${count === 0 ? 'nothing' : count} to come back`}
        title="Is everything back?"
      >
        {count} <span className={styles.ledgerWords}>to come back</span>
      </Button>
      <Drawer open={isOpen} onClose={() => setIsOpen(false)} title="Is everything back?" size="large">
        {isOpen && <OpenThings onLeave={() => setIsOpen(false)} />}
      </Drawer>
    </>
  );
}

/** What is open before the unit can be closed, each with one press to what must be done. */
function OpenThings({ onLeave }: { readonly onLeave: () => void }) {
  const { unit, document, change } = useUnitContext();
  const { put } = useChangeActions();
  const navigate = useNavigate();
  const { selectRef } = useSelection();
  const since = new Map(useLedger().map((entry) => [`ledger:${entry.id}`, entry.since]));
  const things = useMemo(
    () =>
      openThings(
        document.circuit,
        unit.readings,
        new Map(unit.parts.map((p) => [p.id, p.part.ref])),
        unit.ticks,
      ),
    [document.circuit, unit.readings, unit.parts, unit.ticks],
  );
  const isShut = things.some((t) => t.kind === 'temporary');
  const press = (thing: OpenThing) => {
    const resource = unit.changes.find((c) => c.change.id === thing.change);
    if (thing.kind === 'temporary') return resource && put(resource, 'undone');
    if (thing.kind === 'step') {
      onLeave();
      return void navigate(`/units/${unit.id}/build`);
    }
    change({
      type: 'tick-step',
      id: thing.id,
      words: thing.undo,
      isDone: true,
      at: new Date().toISOString(),
    });
  };
  const legs = things.filter((t) => t.kind === 'leg');
  return (
    <>
      <p className={isShut ? undefined : 'zb-dim'}>
        {isShut
          ? 'Until what is temporary is back the unit is not finished, and its cover stays open.'
          : things.length === 0
            ? 'Yes. Nothing temporary is in force, no leg is out, no work is half done.'
            : 'Nothing temporary is in force; this is still open.'}
      </p>
      <ul className={styles.list}>
        {things.map((thing) => {
          const when = since.get(thing.id);
          return (
            <li key={thing.id} className={styles.row}>
              <div className={styles.what}>
                <button
                  className={`zb-link ${styles.name}`}
                  onClick={() => {
                    if (thing.refs[0] !== undefined) selectRef(thing.refs[0]);
                    onLeave();
                  }}
                >
                  {thing.sentence}
                </button>
                <span>{thing.undo}</span>
                {when !== undefined && <span className="zb-dim">since {whenWords(when)}</span>}
              </div>
              <Button type={thing.kind === 'temporary' ? 'primary' : 'default'} onClick={() => press(thing)}>
                {thing.press}
              </Button>
            </li>
          );
        })}
      </ul>
      {legs.length > 1 && (
        <Button type="text" onClick={() => legs.forEach(press)}>
          All {legs.length} legs are soldered
        </Button>
      )}
    </>
  );
}
