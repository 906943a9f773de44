import { unitAct } from '../../api/unit-act.ts';
import { memo } from 'react';
import type { IntakeData } from '@zemble/contract';
import { formatQuantity, KINDS, plannedParts, QUANTITY_KINDS, plannedRefs } from '@zemble/core';
import { Button } from 'antd';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';

type Entry = NonNullable<IntakeData['convicted']>[number];

/** What the search has convicted: to be replaced, or taken off the list when it is done. */
export const ConvictedList = memo(function ConvictedList() {
  const { unit, document, change } = useUnitContext();
  const { selectRef } = useSelection();
  const entries = unit.intake.convicted ?? [];
  if (entries.length === 0) return null;
  const parts = plannedParts(document.circuit);
  const isPlanned = plannedRefs(unit);
  const drop = (entry: Entry) =>
    change(unitAct(unit, { intake: { ...unit.intake, convicted: entries.filter((e) => e !== entry) } }));
  return (
    <section className="zb-block" aria-label="Convicted">
      <h2>Convicted by the search</h2>
      <ul className="zb-notes">
        {entries.map((e) => {
          const part = parts.find((p) => p.ref === e.ref);
          const planned =
            part && isPlanned.has(part.ref) && typeof part.value === 'number'
              ? `planned ${formatQuantity(part.value, QUANTITY_KINDS[KINDS[part.kind].value ?? 'number'])}`
              : part
                ? 'replace as marked'
                : '';
          return (
            <li key={`${e.at}${e.words}`}>
              <span>{e.words}</span>
              <button className="zb-link zb-planned" onClick={() => e.ref && selectRef(e.ref)}>
                {planned}
              </button>
              <Button
                size="small"
                type="text"
                onClick={() => drop(e)}
                aria-label={`Take off the list: ${e.words}`}
              >
                take off
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
});
