import type { UnitResource, Wire } from '@zemble/contract';
import {
  checkWiring,
  netOfWire,
  parseWireLine,
  resolveLayer,
  rewiredEnds,
  writeEnd,
  type WiringReport,
} from '@zemble/core';
import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useMemo, type ReactNode } from 'react';
import { unitAct } from '../../api/unit-act.ts';
import { newId } from '../../api/new-id.ts';
import { LineEntry } from '../../ui/line-entry.tsx';
import { ToneMark } from '../../ui/marks.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { PositionTables } from './position-tables.tsx';
import { paintsOf } from './wire-paint.ts';
import { WiringMap } from './wiring-map.tsx';
import styles from './wiring.module.css';

/** Wires between board and panel: typed at the left, and at the right every lug as it is seen from behind. */
export function WiringView({ tabs }: { readonly tabs: ReactNode }) {
  const { unit, document, change } = useUnitContext();
  const circuit = useMemo(() => resolveLayer(document.circuit, 'planned'), [document.circuit]);
  const wires: readonly Wire[] = unit.wires;
  const report = useMemo(() => checkWiring(circuit, wires, unit.boards), [circuit, wires, unit.boards]);
  const moved = useMemo(
    () => rewiredEnds(wires, resolveLayer(document.circuit, 'marked'), circuit),
    [wires, document.circuit, circuit],
  );
  const remove = (id: string) => keep(wires.filter((w) => w.id !== id));
  const keep = (next: readonly Wire[]) => change(unitAct(unit, { wires: next as UnitResource['wires'] }));
  const add = (wire: Omit<Wire, 'id'>) => {
    const known = new Set(wires.map((w) => w.id));
    let n = wires.length + 1;
    while (known.has(`w${n}`)) n += 1;
    keep([...wires, { id: known.size > 900 ? newId() : `w${n}`, ...wire }]);
  };
  return (
    <div className="zb-split">
      <section className="zb-panel zb-sheet" aria-label="Wiring sheet">
        <header className="zb-panel-head">
          {tabs}
          <span className="zb-grow" />
          <Button size="small" type="text" onClick={() => window.print()} disabled={wires.length === 0}>
            Print
          </Button>
        </header>
        <LineEntry
          label="A wire: its colour and two ends"
          placeholder="green P1.2 board.in 120mm"
          isFirst
          onEnter={(line) => {
            const read = parseWireLine(line);
            if (!read.ok) return read.why;
            add(read.wire);
            return null;
          }}
        />
        <div className="zb-scroll" tabIndex={0} role="group" aria-label="Wires, scrolls">
          <div className="zb-block" role="status">
            {wires.length === 0 ? (
              <p className="zb-dim">
                A wire is its colour and its two ends: a lug (P1.2, J1.tip), a place on the board (board.in),
                or words in quotes for an old one whose net is not known yet.
              </p>
            ) : report.ok ? (
              <p>
                <ToneMark tone="in" /> Every net that leaves the board has its wire, and no wire joins two
                nets.
              </p>
            ) : (
              <Problems report={report} />
            )}
          </div>
          {moved.length > 0 && (
            <div className="zb-block">
              <h3>Moved by what is planned</h3>
              <ul>
                {moved.map((m) => (
                  <li key={`${m.wire.id} ${m.lug}`}>
                    {m.wire.colour ?? m.wire.id} at {m.lug}: from {m.before} to {m.after}.{' '}
                    <span className="zb-dim">{m.back}</span>
                  </li>
                ))}
              </ul>
            </div>
          )}
          <WireList report={report} onRemove={remove} />
          <PositionTables />
        </div>
      </section>
      <WiringMap
        report={report}
        circuit={circuit}
        onAdd={add}
        onChange={(wire) => keep(wires.map((w) => (w.id === wire.id ? wire : w)))}
        onRemove={remove}
      />
    </div>
  );
}

function Problems({ report }: { readonly report: WiringReport }) {
  const { selectRef, selectNet } = useSelection();
  return (
    <ul>
      {report.problems.map((p) => (
        <li key={p.message}>
          <button
            className="zb-link zb-problem"
            onClick={() => {
              selectRef(p.refs?.[0] ?? null);
              selectNet(p.nets?.[0] ?? null);
            }}
          >
            {p.message}
          </button>
        </li>
      ))}
    </ul>
  );
}

function WireList({
  report,
  onRemove,
}: {
  readonly report: WiringReport;
  readonly onRemove: (id: string) => void;
}) {
  const { selectNet } = useSelection();
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          <th>colour</th>
          <th>from</th>
          <th>to</th>
          <th>net</th>
          <th>length</th>
          <th aria-label="Take out" />
        </tr>
      </thead>
      <tbody>
        {report.wires.map((read) => (
          <tr key={read.wire.id} onClick={() => selectNet(netOfWire(read) ?? null)}>
            <td>
              <Swatch colour={read.wire.colour} /> {read.wire.colour ?? ''}
            </td>
            <td className="zb-mono">{writeEnd(read.ends[0])}</td>
            <td className="zb-mono">{writeEnd(read.ends[1])}</td>
            <td className="zb-mono">{netOfWire(read) ?? 'not known'}</td>
            <td>{typeof read.wire.length === 'number' ? `${read.wire.length} mm` : read.wire.length}</td>
            <td>
              <button
                className="zb-icon"
                onClick={() => onRemove(read.wire.id)}
                aria-label={`Take wire ${read.wire.id} out`}
              >
                <DeleteOutlined aria-hidden />
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Swatch({ colour }: { readonly colour: string | undefined }) {
  const paints = paintsOf(colour);
  return (
    <svg width={18} height={8} aria-hidden>
      <rect width={18} height={8} rx={2} fill={paints[0]} className={styles.swatch} />
      {paints[1] && <rect y={3} width={18} height={2.5} fill={paints[1]} />}
    </svg>
  );
}
