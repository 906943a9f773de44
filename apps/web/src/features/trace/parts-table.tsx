import { DeleteOutlined } from '@ant-design/icons';
import type { PartResource } from '@zemble/contract';
import {
  controlWords,
  formatQuantity,
  isControl,
  KINDS,
  readPart,
  markedNumber,
  QUANTITY_KINDS,
  type Problem,
} from '@zemble/core';
import { memo, useMemo, useRef } from 'react';
import { VirtualRows } from '../../ui/virtual-rows.tsx';
import styles from './trace.module.css';

interface PartsTableProps extends Pick<
  RowProps,
  'selectedNet' | 'onSelect' | 'onNet' | 'onEdit' | 'onRemove'
> {
  readonly parts: readonly PartResource[];
  readonly problems: readonly Problem[];
  readonly selectedRef: string | null;
}

/** The parts as rows, each with what is to be looked at below it. */
export const PartsTable = memo(function PartsTable({
  parts,
  problems,
  selectedRef,
  ...row
}: PartsTableProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const byRef = useMemo(() => {
    const found = new Map<string, Problem[]>();
    for (const p of problems) {
      if (p.ref === undefined) continue;
      const known = found.get(p.ref);
      if (known) known.push(p);
      else found.set(p.ref, [p]);
    }
    return found;
  }, [problems]);
  return (
    <div ref={scroller} className="zb-scroll" tabIndex={0} role="group" aria-label="List of parts, scrolls">
      <table className="zb-table" aria-rowcount={parts.length + 1}>
        <thead>
          <tr>
            <th>Part</th>
            <th className="zb-right">marked</th>
            <th>model</th>
            <th>nets</th>
            <th aria-label="Actions" />
          </tr>
        </thead>
        <VirtualRows
          items={parts}
          keyOf={(p) => p.id}
          scroller={scroller}
          columns={5}
          current={parts.findIndex((p) => p.part.ref === selectedRef)}
        >
          {(p) => (
            <PartRow
              resource={p}
              problems={byRef.get(p.part.ref)}
              isSelected={p.part.ref === selectedRef}
              {...row}
            />
          )}
        </VirtualRows>
      </table>
    </div>
  );
});

interface RowProps {
  readonly resource: PartResource;
  readonly problems: readonly Problem[] | undefined;
  readonly isSelected: boolean;
  readonly selectedNet: string | null;
  readonly onSelect: (ref: string) => void;
  readonly onNet: (net: string) => void;
  readonly onEdit: (resource: PartResource) => void;
  readonly onRemove: (resource: PartResource) => void;
}

const PartRow = memo(function PartRow({
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
      <tr
        className={isSelected ? 'zb-row-selected' : undefined}
        onClick={() => onSelect(part.ref)}
        onDoubleClick={() => onEdit(resource)}
      >
        <td className="zb-ref">
          <button className="zb-link" onClick={() => onEdit(resource)} aria-label={`Change ${part.ref}`}>
            {part.ref}
          </button>
        </td>
        <td className="zb-number">{marked}</td>
        <td className="zb-dim">
          {[
            part.model ?? (pins.length === 2 && value ? '' : KINDS[part.kind].words),
            isControl(part.kind) ? controlWords(readPart(part, part.ref, [])) : '',
          ]
            .filter((w) => w !== '')
            .join(', ')}
        </td>
        <td className={styles.nets}>
          {pinsInOrder(part).map(([pin, net]) => (
            <button
              key={pin}
              className={`${styles.net}${net === selectedNet ? ' zb-net-on' : ''}`}
              onClick={() => onNet(net)}
              aria-label={`net ${net}`}
            >
              {hasNamedPins && <span className="zb-dim">{pin} </span>}
              {net}
            </button>
          ))}
        </td>
        <td className="zb-right">
          <button className="zb-icon" onClick={() => onRemove(resource)} aria-label={`Remove ${part.ref}`}>
            <DeleteOutlined aria-hidden />
          </button>
        </td>
      </tr>
      {problems?.map((p) => (
        <tr key={p.message} className={styles.rowProblem}>
          <td />
          <td colSpan={4}>
            {p.message} <span className="zb-dim">{p.hint}</span>
          </td>
        </tr>
      ))}
    </>
  );
});

/** Pins as the kind lists them; a box's as they were typed. */
function pinsInOrder(part: PartResource['part']): [string, string][] {
  const order = KINDS[part.kind].pins;
  return Object.entries(part.pins).sort(([a], [b]) => order.indexOf(a) - order.indexOf(b));
}
