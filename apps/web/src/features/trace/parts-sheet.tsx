import type { PartResource, SheetPart } from '@zemble/contract';
import { besideLine, readPart, type Part } from '@zemble/core';
import { Button, Tooltip } from 'antd';
import { useCallback, useState, type ReactNode } from 'react';
import { newId } from '../../api/new-id.ts';
import { Keys } from '../../ui/keys.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useUndoable } from '../../unit/use-undo.ts';
import { ModelsButton } from './models-dialog.tsx';
import { PartEntry } from './part-entry.tsx';
import { PartsTable } from './parts-table.tsx';

/** The parts as lines that are typed, not clicked. */
export function PartsSheet({ tabs }: { tabs: ReactNode }) {
  const { unit, document, problems, change } = useUnitContext();
  const { selectedRef, selectRef, selectedNet, selectNet } = useSelection();
  const [editing, setEditing] = useState<PartResource | null>(null);
  const undoable = useUndoable(unit);
  const edit = useCallback(
    (resource: PartResource) => {
      setEditing(resource);
      selectRef(resource.part.ref);
    },
    [selectRef],
  );
  const remove = useCallback(
    (p: PartResource) => change({ type: 'remove-part', partId: p.id, seen: p.version }),
    [change],
  );
  const step = (by: number) => {
    const index = unit.parts.findIndex((p) => p.part.ref === selectedRef);
    const next = unit.parts[Math.min(unit.parts.length - 1, Math.max(0, index + by))];
    if (next) selectRef(next.part.ref);
  };
  const enter = (part: Part) => {
    const { found: _found, ...typed } = part;
    const known = editing ?? unit.parts.find((p) => p.part.ref === part.ref);
    if (known) {
      const { found: _measured, ...kept } = besideLine(readPart(known.part, known.part.ref, []));
      change({
        type: 'update-part',
        partId: known.id,
        seen: known.version,
        part: { ...kept, ...typed } as SheetPart,
      });
    } else {
      change({ type: 'add-part', id: newId(), part: typed as SheetPart });
    }
    selectRef(part.ref);
    setEditing(null);
  };
  const selected = unit.parts.find((p) => p.part.ref === selectedRef);
  const general = problems.filter((p) => p.ref === undefined);
  return (
    <section className="zb-panel zb-sheet" aria-label="Parts">
      <header className="zb-panel-head">
        {tabs}
        <span className="zb-dim">
          {unit.parts.length} parts{problems.length > 0 ? ` · ${problems.length} to look at` : ''}
        </span>
        <span className="zb-grow" />
        <ModelsButton />
        {undoable && (
          <Tooltip title={undoable.summary}>
            <Button type="text" onClick={() => change({ type: 'undo', sequence: undoable.sequence })}>
              Take back <Keys keys="Ctrl Z" />
            </Button>
          </Tooltip>
        )}
      </header>
      <PartEntry
        key={editing?.id ?? 'new'}
        circuit={document.circuit}
        editing={editing}
        onEnter={enter}
        onEdit={() => selected && edit(selected)}
        onRemove={() => selected && remove(selected)}
        onStep={step}
        onLeave={() => setEditing(null)}
      />
      {general.map((p) => (
        <p key={p.message} className="zb-problem">
          {p.message} <span className="zb-dim">{p.hint}</span>
        </p>
      ))}
      <PartsTable
        parts={unit.parts}
        problems={problems}
        selectedRef={selectedRef}
        selectedNet={selectedNet}
        onSelect={selectRef}
        onNet={selectNet}
        onEdit={edit}
        onRemove={remove}
      />
    </section>
  );
}
