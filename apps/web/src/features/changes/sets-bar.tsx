import { CopyOutlined, DeleteOutlined, EditOutlined, PlusOutlined } from '@ant-design/icons';
import type { ChangeSet } from '@zemble/contract';
import { activeSet } from '@zemble/core';
import { Button, Input } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { asOneEntry } from '../../api/act.ts';
import { unitAct } from '../../api/unit-act.ts';
import { newId } from '../../api/new-id.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { restated } from './use-changes.ts';
import styles from './changes.module.css';

const SetsTable = lazy(() => import('./sets-table.tsx').then((m) => ({ default: m.SetsTable })));

/** Sets get letters in order. */
const nextLetter = (sets: readonly ChangeSet[]): string => {
  const taken = new Set(sets.map((s) => s.id));
  for (let i = 0; ; i += 1) {
    const id = i < 26 ? String.fromCharCode(65 + i) : `S${i}`;
    if (!taken.has(id)) return id;
  }
};
export const setName = (set: ChangeSet): string => [set.id, set.name ?? ''].join(' ').trim();

/** Alternatives side by side: one is active, each can be copied, named and dropped. */
export function SetsBar() {
  const { unit, change } = useUnitContext();
  const [named, setNamed] = useState<{ id: string; text: string } | null>(null);
  const [compares, setCompares] = useState(false);
  const { sets } = unit;
  const active = activeSet(unit);
  const having = (next: readonly ChangeSet[]) => unitAct(unit, { sets: next.map((s) => ({ ...s })) });
  const put = (next: readonly ChangeSet[]) => change(having(next));
  const activated = (id: string | undefined, among = sets) =>
    having(among.map((s) => ({ ...s, active: s.id === id })));
  const activate = (id: string | undefined) => change(activated(id));
  const opened = (name: string) => {
    const id = nextLetter(sets);
    return { id, act: activated(id, [...sets, { id, name }]) };
  };
  const open = (name: string) => change(opened(name).act);
  const copy = (from: string) => {
    const source = sets.find((s) => s.id === from)!;
    const { id, act } = opened(`like ${source.name || source.id}`);
    const copies = unit.changes.flatMap(({ change: each }) => {
      if (each.set !== from || each.state !== 'planned') return [];
      const own = newId();
      return [{ type: 'add-change' as const, id: own, change: { ...each, id: own, set: id } }];
    });
    change(asOneEntry([act, ...copies]));
  };
  const drop = (id: string) => {
    const dropped = unit.changes
      .filter((c) => c.change.set === id && c.change.state === 'planned')
      .map((c) => restated(c, { state: 'dropped' }));
    change(asOneEntry([...dropped, having(sets.filter((s) => s.id !== id))]));
  };
  const keepName = () => {
    if (named) put(sets.map((s) => (s.id === named.id ? { ...s, name: named.text.trim() } : s)));
    setNamed(null);
  };
  const isDoneIn = (id: string) => unit.changes.some((c) => c.change.set === id && c.change.state === 'done');
  return (
    <div className={styles.sets} role="group" aria-label="Sets of changes">
      {sets.map((set) => (
        <span key={set.id} className={set.id === active ? styles.setActive : styles.set}>
          {named?.id === set.id ? (
            <Input
              autoFocus
              size="small"
              aria-label={`Name of set ${set.id}`}
              value={named.text}
              maxLength={60}
              onChange={(event) => setNamed({ id: set.id, text: event.target.value })}
              onPressEnter={keepName}
              onBlur={keepName}
            />
          ) : (
            <button
              className="zb-link"
              aria-pressed={set.id === active}
              onClick={() => activate(set.id === active ? undefined : set.id)}
            >
              {setName(set)}
            </button>
          )}
          {set.id === active && (
            <>
              <button
                className="zb-icon"
                aria-label={`Name set ${set.id}`}
                onClick={() => setNamed({ id: set.id, text: set.name ?? '' })}
              >
                <EditOutlined aria-hidden />
              </button>
              <button className="zb-icon" aria-label={`Copy set ${set.id}`} onClick={() => copy(set.id)}>
                <CopyOutlined aria-hidden />
              </button>
              {!isDoneIn(set.id) && (
                <button className="zb-icon" aria-label={`Drop set ${set.id}`} onClick={() => drop(set.id)}>
                  <DeleteOutlined aria-hidden />
                </button>
              )}
            </>
          )}
        </span>
      ))}
      <Button size="small" type="text" icon={<PlusOutlined aria-hidden />} onClick={() => void open('')}>
        {sets.length === 0 ? 'Weigh alternatives' : 'Another set'}
      </Button>
      {sets.length > 0 && (
        <Button size="small" type="text" onClick={() => setCompares(true)}>
          Compare
        </Button>
      )}
      {compares && (
        <Suspense fallback={null}>
          <SetsTable onClose={() => setCompares(false)} />
        </Suspense>
      )}
    </div>
  );
}
