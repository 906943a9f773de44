import { MOST_ACTS, type Act, type PartResource, type SheetPart } from '@zemble/contract';
import { besideLine, parseSheetLines, readPart, type Part } from '@zemble/core';
import { Button, Tooltip } from 'antd';
import { useCallback, useState, type ReactNode } from 'react';
import { asOneEntry } from '../../api/act.ts';
import { newId } from '../../api/new-id.ts';
import { Keys } from '../../ui/keys.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useUndoable } from '../../unit/use-undo.ts';
import { ModelsButton } from './models-dialog.tsx';
import { PartEntry } from './part-entry.tsx';
import { WaitingLines } from './waiting-lines.tsx';
import { useWaitingLines } from './use-waiting-lines.ts';
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
  const { waiting, add, drop } = useWaitingLines(unit.id);
  /** The waiting line that stands in the field. */
  const [mending, setMending] = useState<string | null>(null);
  const actFor = (part: Part, known: PartResource | undefined): Act => {
    const { found: _found, ...typed } = part;
    if (!known) return { type: 'add-part', id: newId(), part: typed as SheetPart };
    const { found: _measured, ...kept } = besideLine(readPart(known.part, known.part.ref, []));
    return {
      type: 'update-part',
      partId: known.id,
      seen: known.version,
      part: { ...kept, ...typed } as SheetPart,
    };
  };
  const knownAs = (ref: string) => unit.parts.find((p) => p.part.ref === ref);
  const enter = (part: Part) => {
    change(actFor(part, editing ?? knownAs(part.ref)));
    selectRef(part.ref);
    setEditing(null);
    if (mending !== null) drop(mending);
    setMending(null);
  };
  const enterList = (text: string) => {
    const { parts, refused } = parseSheetLines(text, document.circuit);
    for (let i = 0; i < parts.length; i += MOST_ACTS) {
      const entry = asOneEntry(
        parts.slice(i, i + MOST_ACTS).map((part) => actFor(part, knownAs(part.ref))),
        `${parts.length} parts from a list: ${parts[0]!.ref} to ${parts.at(-1)!.ref}.`,
      );
      if (entry) change(entry);
    }
    add(refused.map((r) => r.line));
    const last = parts.at(-1);
    if (last) selectRef(last.ref);
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
        key={editing?.id ?? mending ?? 'new'}
        circuit={document.circuit}
        editing={editing}
        onEnter={enter}
        onList={enterList}
        mending={mending}
        onEdit={() => selected && edit(selected)}
        onRemove={() => selected && remove(selected)}
        onStep={step}
        onLeave={() => {
          setEditing(null);
          setMending(null);
        }}
      />
      <WaitingLines
        lines={waiting}
        circuit={document.circuit}
        onMend={(line) => {
          setEditing(null);
          setMending(line);
        }}
        onDrop={drop}
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
