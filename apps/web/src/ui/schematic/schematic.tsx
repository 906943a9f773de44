import type { Drawing, Flag, Point, RailMark } from '@halfsplit/core';
import { useRef, useState, type PointerEvent, type ReactNode } from 'react';
import { symbolOf } from './symbols.tsx';
import styles from './schematic.module.css';

export type Emphasis = 'out' | 'edge' | 'planned' | 'found' | 'proven';

interface SchematicProps {
  readonly drawing: Drawing;
  readonly flags: readonly Flag[];
  /** How a flag's measured voltage compares with the computed one, by net. */
  readonly flagTones?: ReadonlyMap<string, 'in' | 'edge' | 'out'>;
  /** Colour that a part's value and symbol take, by designator. */
  readonly emphasis: ReadonlyMap<string, Emphasis>;
  readonly selectedRef: string | null;
  readonly selectedNet: string | null;
  readonly onSelectRef: (ref: string | null) => void;
  readonly onSelectNet: (net: string | null) => void;
  /** A symbol was moved to a place in drawing units. */
  readonly onMove?: (ref: string, to: Point) => void;
}

const MARGIN = 2;
/** A symbol is caught this far around its body; its text begins just beyond. */
const CATCH = 0.25;
/** Pixels of a drawing unit at which the text is 12 px tall. */
const FULL_SCALE = 10;
const LEAST_SCALE = 9;

/** A drawing that answers: hover or select a symbol or a net, drag a symbol to move it. */
export function Schematic(props: SchematicProps) {
  const { drawing, flags, flagTones, emphasis, selectedRef, selectedNet, onSelectRef, onSelectNet, onMove } =
    props;
  const [drag, setDrag] = useState<{ ref: string; from: Point; dx: number; dy: number } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const { left, top, right, bottom } = drawing.bounds;
  const [width, height] = [right - left + 2 * MARGIN, bottom - top + 2 * MARGIN];

  const toUnits = (event: PointerEvent): Point => {
    const box = svg.current!.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) / box.width) * width,
      y: ((event.clientY - box.top) / box.height) * height,
    };
  };
  const startDrag = (ref: string, event: PointerEvent<SVGGElement>) => {
    if (!onMove || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ ref, from: toUnits(event), dx: 0, dy: 0 });
  };
  const moveDrag = (event: PointerEvent<SVGGElement>) => {
    if (!drag) return;
    const now = toUnits(event);
    setDrag({ ...drag, dx: Math.round(now.x - drag.from.x), dy: Math.round(now.y - drag.from.y) });
  };
  const endDrag = () => {
    if (!drag) return;
    const symbol = drawing.symbols.find((s) => s.part.ref === drag.ref);
    if (symbol && (drag.dx !== 0 || drag.dy !== 0))
      onMove?.(drag.ref, { x: symbol.at.x + drag.dx, y: symbol.at.y + drag.dy });
    setDrag(null);
  };

  return (
    <svg
      ref={svg}
      className={styles.schematic}
      viewBox={`${left - MARGIN} ${top - MARGIN} ${width} ${height}`}
      style={{
        width: `min(100%, ${width * FULL_SCALE}px)`,
        minWidth: width * LEAST_SCALE,
        aspectRatio: `${width} / ${height}`,
      }}
      role="group"
      aria-label={`Circuit of ${drawing.symbols.length} parts`}
      onPointerDown={(event) => {
        if (event.target === svg.current) {
          onSelectRef(null);
          onSelectNet(null);
        }
      }}
    >
      {drawing.wires.map((w, i) => (
        <g
          key={i}
          className={w.net === selectedNet ? `${styles.wire} ${styles.wireSelected}` : styles.wire}
          onPointerDown={() => onSelectNet(w.net)}
        >
          <line x1={w.from.x} y1={w.from.y} x2={w.to.x} y2={w.to.y} className={styles.wireCatch}>
            <title>{`net ${w.net}`}</title>
          </line>
          <line x1={w.from.x} y1={w.from.y} x2={w.to.x} y2={w.to.y} />
        </g>
      ))}
      {drawing.dots.map((d, i) => (
        <circle
          key={i}
          cx={d.x}
          cy={d.y}
          r="0.3"
          className={d.net === selectedNet ? `${styles.dot} ${styles.dotSelected}` : styles.dot}
        />
      ))}
      {drawing.marks.map((m, i) => (
        <RailSymbol key={i} mark={m} />
      ))}
      {drawing.symbols.map((s) => {
        const { part, at, body } = s;
        const tone = emphasis.get(part.ref);
        const isSelected = part.ref === selectedRef;
        const shift = drag?.ref === part.ref ? `translate(${drag.dx} ${drag.dy})` : undefined;
        return (
          <g
            key={part.ref}
            className={`${styles.symbol}${tone ? ` ${styles.symbolStrong}` : ''}${isSelected ? ` ${styles.symbolSelected}` : ''}`}
            style={tone ? { color: `var(--hs-${tone})` } : undefined}
            transform={shift}
            data-ref={part.ref}
            onPointerDown={(event) => {
              onSelectRef(part.ref);
              startDrag(part.ref, event);
            }}
            onPointerMove={moveDrag}
            onPointerUp={endDrag}
            onPointerCancel={() => setDrag(null)}
          >
            <rect
              className={styles.catch}
              x={body.left - CATCH}
              y={body.top - CATCH}
              width={body.right - body.left + 2 * CATCH}
              height={body.bottom - body.top + 2 * CATCH}
              rx="0.5"
            />
            <g
              transform={`translate(${at.x} ${at.y}) rotate(${-90 * at.turn}) scale(1 ${at.isFlipped ? -1 : 1})`}
              className={styles.lines}
            >
              {symbolOf(part)}
            </g>
            {s.labels.map((label, i) => (
              <text
                key={i}
                x={label.x}
                y={label.y}
                textAnchor={label.anchor}
                className={i === 0 ? styles.designator : styles.value}
              >
                {label.text}
              </text>
            ))}
          </g>
        );
      })}
      {[...drawing.names, ...flags].map((flag, i) => (
        <FlagMark
          key={i}
          flag={flag}
          isName={i < drawing.names.length}
          tone={i < drawing.names.length ? undefined : flagTones?.get(flag.net)}
        />
      ))}
    </svg>
  );
}

function FlagMark({ flag, isName, tone }: { flag: Flag; isName: boolean; tone: string | undefined }) {
  const { box } = flag;
  return (
    <g
      className={isName ? styles.netName : `${styles.flag}${tone ? ` ${styles[`flag-${tone}`]}` : ''}`}
      pointerEvents="none"
    >
      {!isName && (
        <rect x={box.left} y={box.top} width={box.right - box.left} height={box.bottom - box.top} rx="0.3" />
      )}
      <text x={(box.left + box.right) / 2} y={box.bottom - 0.42} textAnchor="middle">
        {flag.text}
      </text>
    </g>
  );
}

function RailSymbol({ mark }: { mark: RailMark }): ReactNode {
  const sign = mark.way === 'up' ? -1 : 1;
  const start = mark.y + sign * 1;
  return (
    <g className={styles.supplyMark}>
      <path
        d={`M${mark.from.x} ${mark.from.y}L${mark.x} ${mark.y === mark.from.y ? mark.y : mark.from.y + (mark.y - mark.from.y)}V${start}`}
      />
      {mark.kind === 'ground' ? (
        <path
          d={`M${mark.x - 0.9} ${start}h1.8M${mark.x - 0.55} ${start + 0.4}h1.1M${mark.x - 0.22} ${start + 0.8}h0.44`}
        />
      ) : (
        <>
          <path d={`M${mark.x - 0.9} ${start}h1.8`} />
          <text x={mark.x} y={mark.way === 'up' ? start - 0.3 : start + 1.2} textAnchor="middle">
            {mark.net}
          </text>
        </>
      )}
    </g>
  );
}
