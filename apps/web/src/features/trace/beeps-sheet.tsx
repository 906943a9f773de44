import type { SheetPart } from '@zemble/contract';
import type { Part } from '@zemble/core';
import { Button, Tooltip } from 'antd';
import type { ReactNode } from 'react';
import { newId } from '../../api/new-id.ts';
import { Keys } from '../../ui/keys.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useUndoable } from '../../unit/use-undo.ts';
import { BeepEntry } from './beep-entry.tsx';
import { BeepHistory } from './beep-history.tsx';
import { BeepQuestion } from './beep-question.tsx';
import { Contradictions } from './contradictions.tsx';
import { NetsList } from './nets-list.tsx';
import { useBeeps } from './use-beeps.ts';

/** Tracing with a meter that beeps: parts without nets, what beeps with what, and what to beep next. */
export function BeepsSheet({ tabs }: { tabs: ReactNode }) {
  const { unit, change } = useUnitContext();
  const { selectRef } = useSelection();
  const beeps = useBeeps();
  const undoable = useUndoable(unit);
  const { progress } = beeps.next;
  const addParts = (parts: readonly Part[]) => {
    for (const { found: _found, ...part } of parts)
      change({ type: 'add-part', id: newId(), part: part as SheetPart });
    selectRef(parts[0]!.ref);
  };
  return (
    <section className="zb-panel zb-sheet" aria-label="Beeps">
      <header className="zb-panel-head">
        {tabs}
        <span className="zb-dim zb-nowrap" title="Pins whose net is settled, of all">
          {progress.settled}/{progress.pins} pins
        </span>
        <span className="zb-grow" />
        {undoable && (
          <Tooltip title={undoable.summary}>
            <Button type="text" onClick={() => change({ type: 'undo', sequence: undoable.sequence })}>
              Take back <Keys keys="Ctrl Z" />
            </Button>
          </Tooltip>
        )}
      </header>
      <BeepEntry beeps={beeps} onParts={addParts} />
      <div className="zb-scroll" tabIndex={0} role="group" aria-label="What beeped, scrolls">
        <Contradictions beeps={beeps} />
        <BeepQuestion beeps={beeps} />
        <NetsList beeps={beeps} />
        <BeepHistory beeps={beeps} />
      </div>
    </section>
  );
}
