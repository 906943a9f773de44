import type { Hole } from '@zemble/contract';
import {
  cleared,
  movedPlace,
  otherWay,
  placeOf,
  withCut,
  withLink,
  withoutPlace,
  withPlace,
  withTerminal,
} from '@zemble/core';
import { Button } from 'antd';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { OneOf } from '../../ui/one-of.tsx';
import { svgPoint } from '../../ui/svg-point.ts';
import { useSelection } from '../../unit/selection.tsx';
import { BodyFigure, Copper, Links, Rulers, Wires } from './board-figure.tsx';
import { boardFrame, type BoardSide } from './board-geometry.ts';
import { draggedTo, type Drag } from './board-drag.ts';
import { BoardPhoto, LayPhoto, PhotoChoice } from './board-photo.tsx';
import { BoardTools, TOOLS, type Tool } from './board-tools.tsx';
import styles from './board.module.css';
import { landmarks } from './photo-on-board.ts';
import type { Boards } from './use-boards.ts';
import { useLaidPhoto } from './use-laid-photo.ts';

const SIDES: readonly { readonly value: BoardSide; readonly label: string }[] = [
  { value: 'parts', label: 'Parts’ side' },
  { value: 'copper', label: 'Copper side' },
];

/** The board at the right: parts are dragged, turned, their leads bent; cuts, links and terminals come and go with a tap. */
export function BoardPanel({
  boards,
  marked,
  switcher,
}: {
  readonly boards: Boards;
  readonly marked: readonly Hole[];
  /** Stands before the tools, to see something else here. */
  readonly switcher?: ReactNode;
}) {
  const { board, report, circuit, keep, preview } = boards;
  const { selectedRef, selectedNet, selectRef, selectNet } = useSelection();
  const [tool, setTool] = useState<Tool>('Move');
  const [side, setSide] = useState<BoardSide>('parts');
  const [linkFrom, setLinkFrom] = useState<Hole | null>(null);
  const [net, setNet] = useState<string | null>(null);
  const laid = useLaidPhoto(board, report?.bodies ?? [], keep);
  const drag = useRef<Drag | null>(null);
  const svg = useRef<SVGSVGElement | null>(null);
  const frame = useMemo(() => (board ? boardFrame(board, side) : undefined), [board, side]);
  if (!board || !report || !frame)
    return (
      <section className="zb-panel" aria-label="Board">
        <p className="zb-empty-words">
          A board is laid out here, on holes of 2.54 mm, and checked against the circuit at every move.
        </p>
      </section>
    );
  const nets = [...new Set(circuit.parts.flatMap((p) => Object.values(p.pins)))];
  const holeOf = (event: PointerEvent): Hole => {
    const { x, y } = svgPoint(svg.current!, event);
    return frame.holeAt(x, y);
  };
  const isOn = ([c, r]: Hole) => c >= 0 && r >= 0 && c < board.columns && r < board.rows;
  const tapHole = (hole: Hole) => {
    if (!isOn(hole)) return;
    switch (tool) {
      case 'Move': {
        const own = [...report.nets].find(([, holes]) =>
          holes.some(([c, r]) => c === hole[0] && r === hole[1]),
        );
        selectNet(own?.[0] ?? null);
        selectRef(null);
        return;
      }
      case 'Cut':
        return keep(withCut(board, hole));
      case 'Link':
        if (!linkFrom) return setLinkFrom(hole);
        setLinkFrom(null);
        return keep(
          linkFrom[0] === hole[0] && linkFrom[1] === hole[1]
            ? cleared(board, hole)
            : withLink(board, linkFrom, hole),
        );
      case 'Terminal': {
        const isThere = board.terminals.some((t) => t.hole[0] === hole[0] && t.hole[1] === hole[1]);
        const chosen = net ?? selectedNet;
        if (isThere) return keep(cleared(board, hole));
        if (chosen !== null) keep(withTerminal(board, chosen, hole));
      }
    }
  };
  const onPress = (event: PointerEvent<SVGGElement>, ref: string) => {
    if (tool !== 'Move') return;
    event.stopPropagation();
    selectRef(ref);
    selectNet(null);
    drag.current = { ref, from: holeOf(event), board };
    svg.current?.setPointerCapture(event.pointerId);
  };
  const onMove = (event: PointerEvent) => {
    const now = drag.current;
    if (now) preview(draggedTo(now, holeOf(event)));
  };
  const onRelease = (event: PointerEvent) => {
    const now = drag.current;
    drag.current = null;
    if (!now) return tapHole(holeOf(event));
    // On the board as it is by now: what somebody else moved meanwhile stays where it is.
    const of = boards.boards.find((b) => b.id === now.board.id) ?? now.board;
    const to = draggedTo({ ...now, board: of }, holeOf(event));
    if (to === of) preview(null);
    else keep(to);
  };
  /** A touch that was taken away, as by a scroll, moves nothing. */
  const onCancel = () => {
    drag.current = null;
    preview(null);
  };
  const act = (ref: string, how: 'turn' | 'span' | 'off' | readonly [number, number]) => {
    const place = placeOf(board, ref);
    if (!place) return;
    if (how === 'off') return keep(withoutPlace(board, place.ref));
    keep(
      withPlace(
        board,
        typeof how === 'string' ? otherWay(circuit, board, place, how) : movedPlace(place, ...how),
      ),
    );
  };
  const onKey = (event: KeyboardEvent, ref: string) => {
    const left = side === 'copper' ? 1 : -1;
    const does: Readonly<Record<string, Parameters<typeof act>[1]>> = {
      ArrowLeft: [left, 0],
      ArrowRight: [-left, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
      t: 'turn',
      b: 'span',
      Delete: 'off',
    };
    const how = does[event.key];
    if (how === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    act(ref, how);
  };
  const chosen = selectedRef === null ? undefined : placeOf(board, selectedRef);
  return (
    <section className="zb-panel" aria-label="Board">
      <header className="zb-panel-head">
        {switcher}
        <OneOf
          label="What a tap does"
          options={TOOLS}
          value={tool}
          onChange={(next) => {
            setTool(next);
            setLinkFrom(null);
          }}
        />
        <OneOf label="Seen from" options={SIDES} value={side} onChange={setSide} />
        <span className="zb-grow" />
        <PhotoChoice photoId={laid.photo?.id ?? null} onChoose={laid.choose} />
        {laid.isLaid && !laid.isLaying && (
          <Button size="small" type="text" onClick={laid.layAnew}>
            Lay it anew
          </Button>
        )}
      </header>
      <BoardTools
        tool={tool}
        part={chosen?.ref}
        onAct={(how) => chosen && act(chosen.ref, how)}
        linkFrom={linkFrom}
        nets={nets}
        net={net ?? selectedNet}
        onNet={setNet}
      />
      {laid.photo && laid.isLaying && (
        <LayPhoto
          key={laid.photo.id}
          photo={laid.photo}
          landmarks={landmarks(board, report.bodies)}
          onLaid={laid.onLaid}
          onCancel={laid.leave}
        />
      )}
      <div className={styles.canvas} tabIndex={0} role="group" aria-label="Board, scrolls">
        <svg
          ref={svg}
          className={styles.svg}
          viewBox={`0 0 ${frame.width} ${frame.height}`}
          width={Math.max(frame.width, Math.min(640, frame.width * 1.6))}
          onPointerMove={onMove}
          onPointerUp={onRelease}
          onPointerCancel={onCancel}
          role="group"
          aria-label={`Board of ${board.columns} columns and ${board.rows} rows, seen from the ${side === 'parts' ? 'parts’' : 'copper'} side`}
        >
          <rect
            x={8}
            y={8}
            width={frame.width - 16}
            height={frame.height - 16}
            rx={4}
            className={styles.outline}
          />
          {laid.photo && (
            <BoardPhoto
              photo={laid.photo}
              laid={board.photo}
              bodies={report.bodies}
              frame={frame}
              side={side}
            />
          )}
          <Copper
            board={board}
            report={report}
            frame={frame}
            selectedRef={selectedRef}
            selectedNet={selectedNet}
            marked={marked}
          />
          <Links board={board} frame={frame} />
          <Rulers board={board} frame={frame} />
          {report.bodies.map((placed) => (
            <g
              key={placed.name}
              className={styles.part}
              tabIndex={0}
              role="button"
              aria-label={`${placed.name}, ${placed.stance.kind}, at column ${placed.pins[0]!.hole[0]}, row ${placed.pins[0]!.hole[1]}`}
              onPointerDown={(event) => onPress(event, placed.refs[0]!)}
              onFocus={() => selectRef(placed.refs[0]!)}
              onKeyDown={(event) => onKey(event, placed.name)}
              pointerEvents={tool === 'Move' ? undefined : 'none'}
              opacity={side === 'copper' ? 0.45 : 1}
            >
              <BodyFigure
                placed={placed}
                frame={frame}
                isSelected={selectedRef !== null && placed.refs.includes(selectedRef)}
              />
            </g>
          ))}
          <Wires
            board={board}
            report={report}
            frame={frame}
            selectedRef={selectedRef}
            selectedNet={selectedNet}
            marked={marked}
          />
          {linkFrom && (
            <circle cx={frame.at(linkFrom).x} cy={frame.at(linkFrom).y} r={8} className={styles.pending} />
          )}
        </svg>
      </div>
    </section>
  );
}
