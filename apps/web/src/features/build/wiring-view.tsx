import type { UnitResource, Wire } from '@halfsplit/contract';
import {
  checkWiring,
  contactsOf,
  keyOfEnd,
  lugsOf,
  netOfEnd,
  parseWireLine,
  resolveLayer,
  rewiredEnds,
  type LayerPart,
  type ReadWire,
  type WireEnd,
  type WiringReport,
} from '@halfsplit/core';
import { DeleteOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import { unitChange } from '../../api/change.ts';
import { newId } from '../../api/outbox-store.ts';
import { ToneMark } from '../../ui/marks.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { WIRE_PAINT } from './wire-paint.ts';
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
  const keep = (next: readonly Wire[]) => change(unitChange(unit, { wires: next as UnitResource['wires'] }));
  const add = (wire: Omit<Wire, 'id'>) => {
    const known = new Set(wires.map((w) => w.id));
    let n = wires.length + 1;
    while (known.has(`w${n}`)) n += 1;
    keep([...wires, { id: known.size > 900 ? newId() : `w${n}`, ...wire }]);
  };
  return (
    <div className="hs-split">
      <section className="hs-panel hs-sheet" aria-label="Wiring sheet">
        <header className="hs-panel-head">
          {tabs}
          <span className="hs-grow" />
          <Button size="small" type="text" onClick={() => window.print()} disabled={wires.length === 0}>
            Print
          </Button>
        </header>
        <WireEntry onAdd={add} />
        <div className="hs-scroll" tabIndex={0} role="group" aria-label="Wires, scrolls">
          <div className="hs-block" role="status">
            {wires.length === 0 ? (
              <p className="hs-dim">
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
            <div className="hs-block">
              <h3>Moved by what is planned</h3>
              <ul>
                {moved.map((m) => (
                  <li key={`${m.wire.id} ${m.lug}`}>
                    {m.wire.colour ?? m.wire.id} at {m.lug}: from {m.before} to {m.after}.{' '}
                    <span className="hs-dim">{m.back}</span>
                  </li>
                ))}
              </ul>
            </div>
          )}
          <WireList report={report} onRemove={(id) => keep(wires.filter((w) => w.id !== id))} />
          <Contacts parts={circuit.parts} />
        </div>
      </section>
      <WiringMap report={report} parts={circuit.parts} />
    </div>
  );
}

/** One line a wire. */
function WireEntry({ onAdd }: { readonly onAdd: (wire: Omit<Wire, 'id'>) => void }) {
  const [text, setText] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const field = useRef<HTMLInputElement | null>(null);
  const enter = () => {
    const read = parseWireLine(text);
    if (!read.ok) return setWhy(read.why);
    onAdd(read.wire);
    setText('');
    field.current?.focus();
  };
  return (
    <div className={styles.entry}>
      <input
        ref={field}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setWhy(null);
        }}
        onKeyDown={(event) => event.key === 'Enter' && enter()}
        placeholder="green P1.2 board.in 120mm"
        aria-label="A wire: its colour and two ends"
        autoFocus
        spellCheck={false}
      />
      {why !== null && (
        <p className="hs-refused" role="alert">
          {why}
        </p>
      )}
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
            className="hs-link hs-problem"
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

const endWords = (end: WireEnd): string => (end.on === 'words' ? end.words : keyOfEnd(end));
const netOf = ({ wire, ends: [a, b] }: ReadWire): string =>
  netOfEnd(a) ?? netOfEnd(b) ?? wire.net ?? 'not known';

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
          <tr key={read.wire.id} onClick={() => selectNet(netOf(read))}>
            <td>
              <Swatch colour={read.wire.colour} /> {read.wire.colour ?? ''}
            </td>
            <td className="hs-mono">{endWords(read.ends[0])}</td>
            <td className="hs-mono">{endWords(read.ends[1])}</td>
            <td className="hs-mono">{netOf(read)}</td>
            <td>{typeof read.wire.length === 'number' ? `${read.wire.length} mm` : read.wire.length}</td>
            <td>
              <button
                className="hs-icon"
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

/** Paint of a wire: its colour, and that of its stripe where it has two. */
function paintsOf(colour: string | undefined): readonly [string, string | undefined] {
  const [first, second] = (colour ?? '')
    .toLowerCase()
    .split(/[-/]/)
    .flatMap((word) => WIRE_PAINT.get(word) ?? []);
  return [first ?? WIRE_PAINT.get('bare')!, second];
}

/** Which position of each switch and jack joins what. */
function Contacts({ parts }: { readonly parts: readonly LayerPart[] }) {
  const having = parts
    .map((part) => ({ part, positions: contactsOf(part) }))
    .filter((p) => p.positions.length > 0);
  if (having.length === 0) return null;
  return (
    <div className="hs-block">
      <h3>Positions</h3>
      <table className={styles.table}>
        <tbody>
          {having.flatMap(({ part, positions }) =>
            positions.map(({ position, joined }) => (
              <tr key={`${part.ref} ${position}`}>
                <td className="hs-mono">{part.ref}</td>
                <td>{position}</td>
                <td>
                  {joined.length === 0
                    ? 'joins nothing'
                    : joined.map(([a, b]) => `${a} (${part.pins[a]}) with ${b} (${part.pins[b]})`).join(', ')}
                </td>
              </tr>
            )),
          )}
        </tbody>
      </table>
      <p className="hs-dim">What each position does to the readouts stands under Rework, in the settings.</p>
    </div>
  );
}

const CARD = { wide: 190, high: 120, gap: 26, columns: 2 } as const;
const LUG = { step: 30, radius: 6 } as const;
const BOARD_WIDE = 150;

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Every part off the board as its lugs are seen from behind, the board in the middle, each wire in its colour. */
function WiringMap({
  report,
  parts,
}: {
  readonly report: WiringReport;
  readonly parts: readonly LayerPart[];
}) {
  const { selectedNet, selectNet, selectRef } = useSelection();
  const refs = [
    ...new Set(report.wires.flatMap(({ ends }) => ends.flatMap((e) => (e.on === 'lug' ? [e.ref] : [])))),
  ];
  const shown = refs.flatMap((ref) => parts.filter((p) => p.ref === ref));
  const names = [
    ...new Set(report.wires.flatMap(({ ends }) => ends.flatMap((e) => (e.on === 'board' ? [e.name] : [])))),
  ];
  const words = [
    ...new Set(report.wires.flatMap(({ ends }) => ends.flatMap((e) => (e.on === 'words' ? [e.words] : [])))),
  ];
  const half = Math.ceil(shown.length / CARD.columns);
  const right = CARD.wide + BOARD_WIDE + 4 * CARD.gap;
  const cards = shown.map((part, i) => ({
    part,
    x: i < half ? CARD.gap : right,
    y: CARD.gap + (i % half) * (CARD.high + CARD.gap),
  }));
  const rows = [...names, ...words];
  const height = Math.max(half * (CARD.high + CARD.gap) + CARD.gap, rows.length * 26 + 90);
  const board = { x: CARD.wide + 2.5 * CARD.gap, y: CARD.gap, high: Math.max(60, rows.length * 26 + 36) };
  const spots = new Map<string, Spot>();
  for (const { part, x, y } of cards)
    for (const lug of lugsOf(part))
      spots.set(`${part.ref}.${lug.pin}`, {
        x: x + CARD.wide / 2 + lug.x * LUG.step,
        y: y + CARD.high / 2 + 8 + lug.y * 24,
      });
  /** A place of the board, at the edge that a wire comes from. */
  const onBoard = (end: WireEnd, other: Spot | undefined): Spot | undefined => {
    const i = rows.findIndex(
      (name) => keyOfEnd(end) === (names.includes(name) ? `board.${name}` : `"${name}"`),
    );
    if (i < 0) return undefined;
    const isLeft = (other?.x ?? 0) < board.x + BOARD_WIDE / 2;
    return { x: isLeft ? board.x + 12 : board.x + BOARD_WIDE - 12, y: board.y + 40 + i * 26 };
  };
  const drawn = report.wires.flatMap((read) => {
    const [first, second] = read.ends;
    const [a, b] = [spots.get(keyOfEnd(first)), spots.get(keyOfEnd(second))];
    const [from, to] = [a ?? onBoard(first, b), b ?? onBoard(second, a)];
    return from && to
      ? [
          a
            ? { read, from, to, isLug: b !== undefined }
            : { read, from: to, to: from, isLug: a !== undefined },
        ]
      : [];
  });
  return (
    <section className="hs-panel hs-on-paper" aria-label="Wiring map">
      <header className="hs-panel-head">
        <h2>From behind, as the iron sees it</h2>
      </header>
      <div className="hs-scroll" tabIndex={0} role="group" aria-label="Wiring map, scrolls">
        {shown.length === 0 ? (
          <p className="hs-empty-words">Parts that a wire reaches are drawn here with their lugs.</p>
        ) : (
          <svg
            viewBox={`0 0 ${right + CARD.wide + CARD.gap} ${height}`}
            className={styles.map}
            role="group"
            aria-label="Wiring map"
          >
            <rect
              x={board.x}
              y={board.y}
              width={BOARD_WIDE}
              height={board.high}
              rx={4}
              className={styles.board}
            />
            <text x={board.x + 10} y={board.y + 18} className={styles.cardName}>
              board
            </text>
            {cards.map(({ part, x, y }) => (
              <g key={part.ref} onClick={() => selectRef(part.ref)}>
                <rect x={x} y={y} width={CARD.wide} height={CARD.high} rx={6} className={styles.card} />
                <text x={x + 10} y={y + 17} className={styles.cardName}>
                  {part.ref}
                </text>
              </g>
            ))}
            {rows.map((name, i) => (
              <text
                key={name}
                x={board.x + BOARD_WIDE / 2}
                y={board.y + 44 + i * 26}
                textAnchor="middle"
                className={styles.lugName}
              >
                {name}
              </text>
            ))}
            {drawn.map(({ read, from, to, isLug }) => {
              const [outer, inner] = paintsOf(read.wire.colour);
              const side = Math.sign(from.x - to.x) || 1;
              // Out of a lug downwards, into the board from its side.
              const d = isLug
                ? `M ${from.x} ${from.y} C ${from.x} ${from.y + 60} ${to.x} ${to.y + 60} ${to.x} ${to.y}`
                : `M ${from.x} ${from.y} C ${from.x} ${from.y + 52} ${to.x + side * 70} ${to.y} ${to.x} ${to.y}`;
              const isLit = selectedNet !== null && netOf(read) === selectedNet;
              const label = isLug
                ? { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 + 42 }
                : { x: to.x + side * 44, y: to.y - 6 };
              return (
                <g key={read.wire.id} onClick={() => selectNet(netOf(read))} className={styles.wire}>
                  <path d={d} className={isLit ? styles.lit : styles.edge} />
                  <path d={d} stroke={outer} className={styles.core} />
                  {inner !== undefined && <path d={d} stroke={inner} className={styles.stripe} />}
                  {!isLug && <circle cx={to.x} cy={to.y} r={LUG.radius} className={styles.lug} />}
                  <text {...label} textAnchor="middle" className={styles.colourName}>
                    {read.wire.colour ?? ''}
                  </text>
                </g>
              );
            })}
            {[...spots].map(([key, { x, y }]) => (
              <g key={key}>
                <circle cx={x} cy={y} r={LUG.radius} className={styles.lug} />
                <text x={x} y={y + 17} textAnchor="middle" className={styles.lugName}>
                  {key.replace(/^"|"$/g, '').replace(/^[^.]*\./, '')}
                </text>
              </g>
            ))}
          </svg>
        )}
      </div>
    </section>
  );
}
