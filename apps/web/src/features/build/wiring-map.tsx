import {
  keyOfEnd,
  lugsOf,
  netOfEnd,
  type LayerPart,
  type ReadWire,
  type WireEnd,
  type WiringReport,
} from '@halfsplit/core';
import { useSelection } from '../../unit/selection.tsx';
import { paintsOf } from './wire-paint.ts';
import styles from './wiring.module.css';

/** The net of a wire, as far as one of its ends tells it. */
export const netOf = ({ wire, ends: [a, b] }: ReadWire): string =>
  netOfEnd(a) ?? netOfEnd(b) ?? wire.net ?? 'not known';

const CARD = { wide: 190, high: 120, gap: 26, columns: 2 } as const;
const LUG = { step: 30, radius: 6 } as const;
const BOARD_WIDE = 150;

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Every part off the board as its lugs are seen from behind, the board in the middle, each wire in its colour. */
export function WiringMap({
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
