import type { Box, Drawing, Flag, Part, Point } from '@zemble/core';
import { memo, useCallback, useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { FlagMark, RailSymbol, WireMark } from './wire-marks.tsx';
import { SymbolMark, type Emphasis } from './symbol-mark.tsx';
import styles from './schematic.module.css';
import type { View } from './view.ts';

interface SchematicProps {
  readonly drawing: Drawing;
  readonly view: View;
  /** The parts as they are now, by designator. */
  readonly parts: ReadonlyMap<string, Part>;
  /** Values beside the symbols, by designator. */
  readonly texts: ReadonlyMap<string, string>;
  readonly flags: readonly Flag[];
  /** How a flag's measured voltage compares with the computed one, by net. */
  readonly flagTones?: ReadonlyMap<string, 'in' | 'edge' | 'out'>;
  /** Colour that a part's value and symbol take, by designator. */
  readonly emphasis: ReadonlyMap<string, Emphasis>;
  /** Parts that were taken out. */
  readonly gone?: ReadonlySet<string>;
  /** Parts that are shown to belong together. */
  readonly together?: ReadonlySet<string>;
  readonly selectedRef: string | null;
  readonly selectedNet: string | null;
  readonly onSelectRef: (ref: string | null) => void;
  readonly onSelectNet: (net: string | null) => void;
  /** A symbol was moved to a place in drawing units. */
  readonly onMove?: (ref: string, to: Point) => void;
}

/** Free paper around a drawing, units. */
const MARGIN = 2;
/** Smaller than this no text is read, and shapes are enough, px a unit. */
const SHAPES_SCALE = 3;
/** A drawing of fewer symbols is drawn whole, seen or not. */
const FEW = 300;

/** A drawing's paper: its bounds with the margin. */
export const paperOf = ({ bounds }: Drawing): Box => ({
  left: bounds.left - MARGIN,
  top: bounds.top - MARGIN,
  right: bounds.right + MARGIN,
  bottom: bounds.bottom + MARGIN,
});

interface Drag {
  readonly ref: string;
  readonly from: Point;
  readonly shift: Point;
  /** The drawing that it is moved in; once it was let go, it stays there until a newer one has it. */
  readonly in: Drawing;
  readonly isOver: boolean;
}

const meets = (a: Box, b: Box) =>
  a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom;
const boxOf = (a: Point, b: Point): Box => ({
  left: Math.min(a.x, b.x),
  right: Math.max(a.x, b.x),
  top: Math.min(a.y, b.y),
  bottom: Math.max(a.y, b.y),
});

/** A drawing that answers: choose a symbol or a net, drag a symbol to move it, drag the paper to see elsewhere. */
export const Schematic = memo(function Schematic(props: SchematicProps) {
  const {
    drawing,
    view,
    parts,
    texts,
    flags,
    flagTones,
    emphasis,
    gone,
    together,
    selectedRef,
    selectedNet,
  } = props;
  const { onSelectRef, onSelectNet, onMove } = props;
  const svg = useRef<SVGSVGElement>(null);
  const paper = paperOf(drawing);
  const [width, height] = [paper.right - paper.left, paper.bottom - paper.top];
  const { scale, seen } = view;
  const { drag, shiftOf, onDown, onDrag, onUp } = useDrag(svg, drawing, scale, onSelectRef, onMove);
  const pan = usePan(view);

  const isSeen = (box: Box) => drawing.symbols.length <= FEW || meets(box, seen);
  const wires = drawing.wires.filter((w) => isSeen(boxOf(w.from, w.to)));
  return (
    <svg
      ref={svg}
      className={styles.schematic}
      viewBox={`${paper.left} ${paper.top} ${width} ${height}`}
      style={{ width: width * scale, height: height * scale }}
      role="group"
      aria-label={`Circuit of ${drawing.symbols.length} parts`}
      onPointerDown={(event) => {
        if (event.target !== svg.current) return;
        onSelectRef(null);
        onSelectNet(null);
        pan.start(event);
      }}
      onPointerMove={pan.move}
      onPointerUp={pan.end}
      onPointerCancel={pan.end}
    >
      {scale < SHAPES_SCALE && drawing.symbols.length > FEW ? (
        <Shapes drawing={drawing} />
      ) : (
        <>
          {wires.map((w) => (
            <WireMark
              key={`${w.net} ${w.from.x} ${w.from.y} ${w.to.x} ${w.to.y}`}
              wire={w}
              isSelected={w.net === selectedNet}
              onSelect={onSelectNet}
            />
          ))}
          {drawing.dots
            .filter((d) => isSeen(boxOf(d, d)))
            .map((d) => (
              <circle
                key={`${d.x} ${d.y}`}
                cx={d.x}
                cy={d.y}
                r="0.3"
                className={d.net === selectedNet ? `${styles.dot} ${styles.dotSelected}` : styles.dot}
              />
            ))}
          {drawing.marks
            .filter((m) => isSeen(m.box))
            .map((m) => (
              <RailSymbol key={`${m.net} ${m.from.x} ${m.from.y}`} mark={m} />
            ))}
          {drawing.symbols
            .filter((s) => isSeen(s.body) || s.part.ref === drag?.ref)
            .map((s) => (
              <SymbolMark
                key={s.part.ref}
                symbol={s}
                part={parts.get(s.part.ref) ?? s.part}
                text={texts.get(s.part.ref) ?? ''}
                tone={emphasis.get(s.part.ref)}
                isGone={gone?.has(s.part.ref)}
                isTogether={together?.has(s.part.ref)}
                isSelected={s.part.ref === selectedRef}
                shift={shiftOf(s.part.ref)}
                onDown={onDown}
                onMove={onDrag}
                onUp={onUp}
              />
            ))}
          {drawing.names
            .filter((n) => isSeen(n.box))
            .map((flag) => (
              <FlagMark
                key={`name ${flag.net} ${flag.at.x} ${flag.at.y}`}
                flag={flag}
                isName
                tone={undefined}
              />
            ))}
          {flags
            .filter((f) => isSeen(f.box))
            .map((flag) => (
              <FlagMark key={flag.net} flag={flag} isName={false} tone={flagTones?.get(flag.net)} />
            ))}
        </>
      )}
    </svg>
  );
});

/** Wires and bodies only, as two shapes: a large drawing from afar. */
function Shapes({ drawing }: { drawing: Drawing }) {
  const { wires, bodies } = useMemo(
    () => ({
      wires: drawing.wires.map(({ from, to }) => `M${from.x} ${from.y}L${to.x} ${to.y}`).join(''),
      bodies: drawing.symbols
        .map(({ body: b }) => `M${b.left} ${b.top}H${b.right}V${b.bottom}H${b.left}Z`)
        .join(''),
    }),
    [drawing],
  );
  return (
    <>
      <path d={wires} className={styles.farWires} />
      <path d={bodies} className={styles.farBodies} />
    </>
  );
}

/** Moving a symbol with the pointer; where it was let go it stays until it is drawn there. */
function useDrag(
  svg: { readonly current: SVGSVGElement | null },
  drawing: Drawing,
  scale: number,
  onSelectRef: (ref: string) => void,
  onMove: ((ref: string, to: Point) => void) | undefined,
) {
  const [drag, setDrag] = useState<Drag | null>(null);
  const now = useRef({ drag, drawing, scale, onMove });
  useEffect(() => {
    now.current = { drag, drawing, scale, onMove };
  });
  if (drag?.isOver && drag.in !== drawing) setDrag(null);
  const at = useCallback(
    (event: PointerEvent): Point => {
      const box = svg.current!.getBoundingClientRect();
      return {
        x: (event.clientX - box.left) / now.current.scale,
        y: (event.clientY - box.top) / now.current.scale,
      };
    },
    [svg],
  );
  const onDown = useCallback(
    (ref: string, event: PointerEvent<SVGGElement>) => {
      onSelectRef(ref);
      if (!now.current.onMove || event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      setDrag({ ref, from: at(event), shift: { x: 0, y: 0 }, in: now.current.drawing, isOver: false });
    },
    [at, onSelectRef],
  );
  const onDrag = useCallback(
    (event: PointerEvent<SVGGElement>) => {
      const { drag: moving } = now.current;
      if (!moving || moving.isOver) return;
      const { x, y } = at(event);
      setDrag({
        ...moving,
        shift: { x: Math.round(x - moving.from.x), y: Math.round(y - moving.from.y) },
      });
    },
    [at],
  );
  const onUp = useCallback(() => {
    const { drag: moving, drawing: of, onMove: tell } = now.current;
    const symbol = of.symbols.find((s) => s.part.ref === moving?.ref);
    if (!moving || moving.isOver) return;
    const { x, y } = moving.shift;
    if (!symbol || (x === 0 && y === 0)) {
      setDrag(null);
      return;
    }
    setDrag({ ...moving, isOver: true });
    tell?.(moving.ref, { x: symbol.at.x + x, y: symbol.at.y + y });
  }, []);
  return {
    drag,
    shiftOf: (ref: string): Point | null => (drag?.ref === ref ? drag.shift : null),
    onDown,
    onDrag,
    onUp,
  };
}

/** Dragging the paper with a mouse; a finger scrolls by itself. */
function usePan({ frame }: View) {
  const from = useRef<{ x: number; y: number; left: number; top: number } | null>(null);
  return {
    start: (event: PointerEvent<SVGSVGElement>) => {
      const element = frame.current;
      if (!element || event.pointerType !== 'mouse' || event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = {
        x: event.clientX,
        y: event.clientY,
        left: element.scrollLeft,
        top: element.scrollTop,
      };
    },
    move: (event: PointerEvent) => {
      const element = frame.current;
      if (!element || !from.current) return;
      const { x, y, left, top } = from.current;
      element.scrollTo({ left: left + x - event.clientX, top: top + y - event.clientY });
    },
    end: () => {
      from.current = null;
    },
  };
}
