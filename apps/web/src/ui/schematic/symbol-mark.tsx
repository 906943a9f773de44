import type { DrawnSymbol, Part, Point } from '@zemble/core';
import { memo, type PointerEvent } from 'react';
import { symbolOf } from './symbols.tsx';
import styles from './schematic.module.css';

export type Emphasis = 'out' | 'edge' | 'planned' | 'found' | 'proven';

/** A symbol is caught this far around its body; its text begins just beyond. */
const CATCH = 0.25;

interface SymbolMarkProps {
  readonly symbol: DrawnSymbol;
  /** The part as it is now: its symbol may say more than when it was drawn. */
  readonly part: Part;
  /** Value beside it. */
  readonly text: string;
  readonly tone: Emphasis | undefined;
  readonly isSelected: boolean;
  /** It was taken out, or is to be. */
  readonly isGone?: boolean | undefined;
  /** It is shown to belong to others that are. */
  readonly isTogether?: boolean | undefined;
  /** How far it is being moved. */
  readonly shift: Point | null;
  readonly onDown: (ref: string, event: PointerEvent<SVGGElement>) => void;
  readonly onMove: (event: PointerEvent<SVGGElement>) => void;
  readonly onUp: () => void;
}

/** One symbol with its designator and value; drawn again only when something about it changes. */
export const SymbolMark = memo(function SymbolMark({
  symbol,
  part,
  text,
  tone,
  isSelected,
  isGone,
  isTogether,
  shift,
  onDown,
  onMove,
  onUp,
}: SymbolMarkProps) {
  const { at, body, labels } = symbol;
  const [designator, value] = labels;
  const classes = [
    styles.symbol,
    tone && styles.symbolStrong,
    isSelected && styles.symbolSelected,
    isGone && styles.symbolGone,
    isTogether && styles.symbolTogether,
  ];
  return (
    <g
      className={classes.filter(Boolean).join(' ')}
      style={tone ? { color: `var(--zb-${tone})` } : undefined}
      transform={shift ? `translate(${shift.x} ${shift.y})` : undefined}
      data-ref={part.ref}
      onPointerDown={(event) => onDown(part.ref, event)}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerCancel={onUp}
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
      {isGone && (
        <path
          className={styles.cross}
          d={`M${body.left} ${body.top}L${body.right} ${body.bottom}M${body.left} ${body.bottom}L${body.right} ${body.top}`}
        />
      )}
      {designator && (
        <text x={designator.x} y={designator.y} textAnchor={designator.anchor} className={styles.designator}>
          {designator.text}
        </text>
      )}
      {value && (
        <text x={value.x} y={value.y} textAnchor={value.anchor} className={styles.value}>
          {text}
        </text>
      )}
    </g>
  );
});
