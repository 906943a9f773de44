import { DeleteOutlined } from '@ant-design/icons';
import type { PartResource, SheetPart } from '@halfsplit/contract';
import {
  formatQuantity,
  besideLine,
  formatSheetLine,
  KINDS,
  markedNumber,
  partWords,
  readPart,
  parseSheetLine,
  QUANTITY_KINDS,
  type Problem,
} from '@halfsplit/core';
import { Button, Tooltip } from 'antd';
import { useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { newId } from '../../api/outbox-store.ts';
import { useUndoable } from '../../unit/use-undo.ts';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { Keys } from '../../ui/keys.tsx';
import { completed, completions } from './complete-word.ts';
import { ModelsButton } from './models-dialog.tsx';
import styles from './trace.module.css';

/** The parts as lines that are typed, not clicked. */
export function PartsSheet({ tabs }: { tabs: ReactNode }) {
  const { unit, document, problems, change } = useUnitContext();
  const { selectedRef, selectRef, selectedNet, selectNet } = useSelection();
  const [line, setLine] = useState('');
  const [editing, setEditing] = useState<PartResource | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const undoable = useUndoable(unit);
  const read = useMemo(() => (line.trim() === '' ? null : parseSheetLine(line)), [line]);
  const [isRefused, setIsRefused] = useState(false);
  const words = useMemo(() => completions(line, document.circuit), [line, document.circuit]);

  const edit = (resource: PartResource) => {
    setEditing(resource);
    setLine(formatSheetLine(readPart(resource.part, resource.part.ref, [])));
    selectRef(resource.part.ref);
    field.current?.focus();
  };
  const clear = () => {
    setLine('');
    setEditing(null);
    setIsRefused(false);
  };
  const commit = () => {
    if (!read) return;
    if (!read.ok) {
      setIsRefused(true);
      return;
    }
    const { found: _found, ...part } = read.part;
    const known = editing ?? unit.parts.find((p) => p.part.ref === read.part.ref);
    if (known) {
      const { found: _measured, ...kept } = besideLine(readPart(known.part, known.part.ref, []));
      change({
        type: 'update-part',
        partId: known.id,
        seen: known.version,
        part: { ...kept, ...part } as SheetPart,
      });
    } else {
      change({ type: 'add-part', id: newId(), part: part as SheetPart });
    }
    selectRef(read.part.ref);
    clear();
  };
  const step = (by: number) => {
    const index = unit.parts.findIndex((p) => p.part.ref === selectedRef);
    const next = unit.parts[Math.min(unit.parts.length - 1, Math.max(0, index + by))];
    if (next) selectRef(next.part.ref);
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    const selected = unit.parts.find((p) => p.part.ref === selectedRef);
    if (event.key === 'Enter') {
      event.preventDefault();
      if (line.trim() === '' && selected) edit(selected);
      else commit();
    } else if (event.key === 'Tab' && !event.shiftKey && words[0]) {
      event.preventDefault();
      setLine(completed(line, words[0]));
    } else if (event.key === 'Escape') {
      clear();
    } else if (line === '' && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      event.preventDefault();
      step(event.key === 'ArrowDown' ? 1 : -1);
    } else if (line === '' && event.key === 'Delete' && selected) {
      change({ type: 'remove-part', partId: selected.id, seen: selected.version });
    }
  };

  const byRef = useMemo(() => {
    const found = new Map<string, Problem[]>();
    for (const p of problems) if (p.ref !== undefined) found.set(p.ref, [...(found.get(p.ref) ?? []), p]);
    return found;
  }, [problems]);
  const general = problems.filter((p) => p.ref === undefined);
  const isUnitPartReplaced =
    read?.ok === true && !editing && unit.parts.some((p) => p.part.ref === read.part.ref);

  return (
    <section className="hs-panel hs-sheet" aria-label="Parts">
      <header className="hs-panel-head">
        {tabs}
        <span className="hs-dim">
          {unit.parts.length} parts{problems.length > 0 ? ` · ${problems.length} to look at` : ''}
        </span>
        <span className="hs-grow" />
        <ModelsButton />
        {undoable && (
          <Tooltip title={undoable.summary}>
            <Button type="text" onClick={() => change({ type: 'undo', sequence: undoable.sequence })}>
              Take back <Keys keys="Ctrl Z" />
            </Button>
          </Tooltip>
        )}
      </header>
      <div className="hs-entry">
        <input
          ref={field}
          className={styles.entryField}
          value={line}
          onChange={(event) => {
            setLine(event.target.value);
            setIsRefused(false);
          }}
          onKeyDown={onKey}
          placeholder="R4 47k in n2"
          aria-label={editing ? `Change ${editing.part.ref}` : 'Type a part'}
          aria-invalid={isRefused}
          autoFocus
          spellCheck={false}
          autoComplete="off"
          autoCapitalize="off"
        />
        <p
          className={`hs-entry-note${isRefused ? ' hs-refused' : ''}`}
          role={isRefused ? 'alert' : undefined}
        >
          {read === null ? (
            <>
              A line is designator, value, nets. <Keys keys="Enter" /> adds it, <Keys keys="↑ ↓" /> choose a
              row.
            </>
          ) : read.ok ? (
            <>
              <strong>{partWords(read.part)}</strong>
              {isUnitPartReplaced && `, replaces the ${read.part.ref} that is there`}
            </>
          ) : (
            read.problem.message
          )}
        </p>
        {words.length > 0 && (
          <p className={styles.completions}>
            <Keys keys="Tab" />
            {words.map((word) => (
              <button
                key={word}
                tabIndex={-1}
                onClick={() => {
                  setLine(completed(line, word));
                  field.current?.focus();
                }}
              >
                {word}
              </button>
            ))}
          </p>
        )}
      </div>
      {general.map((p) => (
        <p key={p.message} className="hs-problem">
          {p.message} <span className="hs-dim">{p.hint}</span>
        </p>
      ))}
      <div className="hs-scroll" tabIndex={0} aria-label="List of parts, scrolls">
        <table className="hs-table">
          <thead>
            <tr>
              <th>Part</th>
              <th className="hs-right">marked</th>
              <th>model</th>
              <th>nets</th>
              <th aria-label="Actions" />
            </tr>
          </thead>
          <tbody>
            {unit.parts.map((p) => (
              <PartRow
                key={p.id}
                resource={p}
                problems={byRef.get(p.part.ref)}
                isSelected={p.part.ref === selectedRef}
                selectedNet={selectedNet}
                onSelect={() => selectRef(p.part.ref)}
                onNet={selectNet}
                onEdit={() => edit(p)}
                onRemove={() => change({ type: 'remove-part', partId: p.id, seen: p.version })}
              />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

interface RowProps {
  readonly resource: PartResource;
  readonly problems: readonly Problem[] | undefined;
  readonly isSelected: boolean;
  readonly selectedNet: string | null;
  readonly onSelect: () => void;
  readonly onNet: (net: string) => void;
  readonly onEdit: () => void;
  readonly onRemove: () => void;
}

function PartRow({
  resource,
  problems,
  isSelected,
  selectedNet,
  onSelect,
  onNet,
  onEdit,
  onRemove,
}: RowProps) {
  const { part } = resource;
  const { pins, value } = KINDS[part.kind];
  const printed = markedNumber(part);
  const marked = printed === null ? '' : formatQuantity(printed, QUANTITY_KINDS[value ?? 'number']);
  const hasNamedPins = pins.length !== 2;
  return (
    <>
      <tr className={isSelected ? 'hs-row-selected' : undefined} onClick={onSelect} onDoubleClick={onEdit}>
        <td className="hs-ref">
          <button className="hs-link" onClick={onEdit} aria-label={`Change ${part.ref}`}>
            {part.ref}
          </button>
        </td>
        <td className="hs-number">{marked}</td>
        <td className="hs-dim">{part.model ?? (pins.length === 2 && value ? '' : KINDS[part.kind].words)}</td>
        <td className={styles.nets}>
          {pinsInOrder(part).map(([pin, net]) => (
            <button
              key={pin}
              className={`${styles.net}${net === selectedNet ? ' hs-net-on' : ''}`}
              onClick={() => onNet(net)}
              aria-label={`net ${net}`}
            >
              {hasNamedPins && <span className="hs-dim">{pin} </span>}
              {net}
            </button>
          ))}
        </td>
        <td className="hs-right">
          <button className="hs-icon" onClick={onRemove} aria-label={`Remove ${part.ref}`}>
            <DeleteOutlined aria-hidden />
          </button>
        </td>
      </tr>
      {problems?.map((p) => (
        <tr key={p.message} className={styles.rowProblem}>
          <td />
          <td colSpan={4}>
            {p.message} <span className="hs-dim">{p.hint}</span>
          </td>
        </tr>
      ))}
    </>
  );
}

/** Pins as the kind lists them; a box's as they were typed. */
function pinsInOrder(part: PartResource['part']): [string, string][] {
  const order = KINDS[part.kind].pins;
  return Object.entries(part.pins).sort(([a], [b]) => order.indexOf(a) - order.indexOf(b));
}
