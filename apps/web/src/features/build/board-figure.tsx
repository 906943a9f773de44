import type { Board, Hole } from '@zemble/contract';
import type { BoardReport, PlacedBody } from '@zemble/core';
import type { BoardFrame } from './board-geometry.ts';
import { MARGIN, STEP } from './board-geometry.ts';
import styles from './board.module.css';

interface Props {
  readonly board: Board;
  readonly report: BoardReport;
  readonly frame: BoardFrame;
  readonly selectedRef: string | null;
  readonly selectedNet: string | null;
  /** Holes that a problem is at. */
  readonly marked: readonly Hole[];
}

const holeKey = ([c, r]: Hole): string => `${c},${r}`;

/** The copper of a board with its cuts: strips or pads, the chosen net lit. */
export function Copper({ board, report, frame, selectedNet }: Props) {
  const lit = new Set((selectedNet === null ? [] : (report.nets.get(selectedNet) ?? [])).map(holeKey));
  const cuts = new Set(board.cuts.map(holeKey));
  const holes = Array.from({ length: board.rows }, (_, r) =>
    Array.from({ length: board.columns }, (_, c): Hole => [c, r]),
  );
  return (
    <g>
      {board.style === 'strip' &&
        holes.map((row, r) => {
          const [first, last] = [frame.at(row[0]!), frame.at(row.at(-1)!)];
          const x = Math.min(first.x, last.x) - STEP / 2;
          return (
            <rect
              key={r}
              x={x}
              y={first.y - 7}
              width={Math.abs(last.x - first.x) + STEP}
              height={14}
              className={styles.strip}
            />
          );
        })}
      {holes.flat().map((hole) => {
        const { x, y } = frame.at(hole);
        const key = holeKey(hole);
        if (cuts.has(key))
          return (
            <g key={key} className={styles.cut}>
              <rect x={x - 7} y={y - 8} width={14} height={16} />
              <path d={`M ${x - 5} ${y - 5} L ${x + 5} ${y + 5} M ${x - 5} ${y + 5} L ${x + 5} ${y - 5}`} />
            </g>
          );
        return (
          <g key={key}>
            {lit.has(key) && <rect x={x - 10} y={y - 7} width={20} height={14} className={styles.lit} />}
            {board.style === 'pads' && <circle cx={x} cy={y} r={6.5} className={styles.pad} />}
            <circle cx={x} cy={y} r={2.4} className={styles.hole} />
          </g>
        );
      })}
    </g>
  );
}

/** Links: they lie under the parts. */
export function Links({ board, frame }: Pick<Props, 'board' | 'frame'>) {
  return (
    <g className={styles.wires}>
      {board.links.map(({ from, to }) => {
        const [a, b] = [frame.at(from), frame.at(to)];
        return (
          <g key={`${holeKey(from)}-${holeKey(to)}`}>
            <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} className={styles.link} />
            <circle cx={a.x} cy={a.y} r={3.4} className={styles.linkEnd} />
            <circle cx={b.x} cy={b.y} r={3.4} className={styles.linkEnd} />
          </g>
        );
      })}
    </g>
  );
}

/** Terminals, and what is missing as straight lines. */
export function Wires({ board, report, frame, marked }: Props) {
  return (
    <g className={styles.wires}>
      {board.terminals.map(({ net, hole, name }) => {
        const { x, y } = frame.at(hole);
        return (
          <g key={holeKey(hole)}>
            <circle cx={x} cy={y} r={7} className={styles.terminal} />
            <text x={x} y={y - 9} textAnchor="middle" className={styles.terminalName}>
              {name ?? net}
            </text>
          </g>
        );
      })}
      {report.missing.map(({ net, from, to }) => {
        const [a, b] = [frame.at(from), frame.at(to)];
        return (
          <line
            key={`${net} ${holeKey(from)} ${holeKey(to)}`}
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            className={styles.missing}
          >
            <title>{net} is missing here</title>
          </line>
        );
      })}
      {marked.map((hole, i) => {
        const { x, y } = frame.at(hole);
        return <circle key={i} cx={x} cy={y} r={11} className={styles.marked} />;
      })}
    </g>
  );
}

/** A part as it lies over its holes. */
export function BodyFigure({
  placed,
  frame,
  isSelected,
}: {
  placed: PlacedBody;
  frame: BoardFrame;
  isSelected: boolean;
}) {
  const { stance, pins, name } = placed;
  const points = pins.map((p) => frame.at(p.hole));
  const middle = {
    x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
    y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
  };
  const label = stance.kind === 'standing' ? points[0]! : middle;
  return (
    <>
      {stance.leads.map((lead, i) => (
        <path key={i} d={frame.path(lead)} className={styles.lead} />
      ))}
      <path d={frame.path(stance.body)} className={isSelected ? styles.bodyOn : styles.body} />
      {points.map(({ x, y }, i) => (
        <circle
          key={i}
          cx={x}
          cy={y}
          r={i === 0 ? 4.2 : 3.4}
          className={i === 0 ? styles.firstPin : styles.pin}
        >
          <title>{`${pins[i]!.ref}.${pins[i]!.pin}${pins[i]!.net === undefined ? ', not used' : `: ${pins[i]!.net}`}`}</title>
        </circle>
      ))}
      <text x={label.x} y={label.y + 4} textAnchor="middle" className={styles.ref}>
        {name}
      </text>
    </>
  );
}

/** Numbers of columns and rows, every fifth. */
export function Rulers({ board: { columns, rows }, frame }: { board: Board; frame: BoardFrame }) {
  const fifths = (count: number) => Array.from({ length: count }, (_, i) => i).filter((i) => i % 5 === 0);
  return (
    <g className={styles.ruler}>
      {fifths(columns).map((c) => (
        <text key={`c${c}`} x={frame.at([c, 0]).x} y={MARGIN - 15} textAnchor="middle">
          {c}
        </text>
      ))}
      {fifths(rows).map((r) => (
        <text key={`r${r}`} x={6} y={frame.at([0, r]).y + 3}>
          {r}
        </text>
      ))}
    </g>
  );
}
