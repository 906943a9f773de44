import { checkBoard, holeWords, PITCH_MM, resolveLayer } from '@zemble/core';
import { useParams } from 'react-router';
import { useUnit } from '../../api/use-unit.ts';
import { useDocument } from '../../unit/use-document.ts';
import type { Board, UnitResource } from '@zemble/contract';
import { BodyFigure, Copper, Links, Rulers, Wires } from './board-figure.tsx';
import { boardFrame, STEP, type BoardSide } from './board-geometry.ts';
import styles from './board.module.css';
import { Ruler } from './ruler.tsx';
import { TrueSize } from './true-size.tsx';

/** Millimetres of one unit of the drawing. */
const MM_A_UNIT = PITCH_MM / STEP;

/** A board on paper at its own size, from both sides, with a ruler to prove it, and the list of its cuts and links. */
export function BoardPrint() {
  const { unitId = '', boardId = '' } = useParams();
  const { unit, error } = useUnit(unitId);
  if (unit?.boards.some((b) => b.id === boardId)) return <Sheet stored={unit} boardId={boardId} />;
  return (
    <p className="zb-empty-words">
      {error?.message ?? (unit ? `There is no board ${boardId}.` : 'Fetching the board')}
    </p>
  );
}

function Sheet({ stored, boardId }: { readonly stored: UnitResource; readonly boardId: string }) {
  const { unit, document } = useDocument(stored);
  const board = unit.boards.find((b) => b.id === boardId)!;
  const report = checkBoard(resolveLayer(document.circuit, 'planned'), board, document.wires ?? []);
  return (
    <main className={styles.sheet}>
      <h1>
        {unit.name}, board {board.name ?? board.id}: {board.columns} by {board.rows} holes of {PITCH_MM} mm
      </h1>
      <Side board={board} report={report} side="parts" />
      <Side board={board} report={report} side="copper" />
      <Ruler />
      <ol>
        {board.cuts.map((hole) => (
          <li key={hole.join()}>☐ cut at {holeWords(hole)}</li>
        ))}
        {board.links.map(({ from, to }) => (
          <li key={`${from.join()} ${to.join()}`}>
            ☐ link {holeWords(from)} to {holeWords(to)}
          </li>
        ))}
      </ol>
      {!report.ok && <p>It is not right yet: {report.problems.map((p) => p.message).join(' ')}</p>}
    </main>
  );
}

function Side({
  board,
  report,
  side,
}: {
  readonly board: Board;
  readonly report: ReturnType<typeof checkBoard>;
  readonly side: BoardSide;
}) {
  const frame = boardFrame(board, side);
  const plain = { board, report, frame, selectedRef: null, selectedNet: null, marked: [] };
  return (
    <figure>
      <figcaption>Seen from the {side === 'parts' ? 'parts’' : 'copper'} side</figcaption>
      <TrueSize
        box={{ x: 0, y: 0, width: frame.width, height: frame.height }}
        mmAUnit={MM_A_UNIT}
        label={`Board from the ${side} side at its own size`}
      >
        <Copper {...plain} />
        {side === 'parts' && <Links board={board} frame={frame} />}
        <Rulers board={board} frame={frame} />
        {side === 'parts' &&
          report.bodies.map((placed) => (
            <g key={placed.name}>
              <BodyFigure placed={placed} frame={frame} isSelected={false} />
            </g>
          ))}
        {side === 'parts' && <Wires {...plain} />}
      </TrueSize>
    </figure>
  );
}
