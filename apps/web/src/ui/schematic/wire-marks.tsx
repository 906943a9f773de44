import type { Flag, RailMark, Wire } from '@zemble/core';
import { memo } from 'react';
import styles from './schematic.module.css';

interface WireMarkProps {
  readonly wire: Wire;
  readonly isSelected: boolean;
  readonly onSelect: (net: string) => void;
}

/** A straight run of wire, with room around it to be caught. */
export const WireMark = memo(function WireMark({ wire, isSelected, onSelect }: WireMarkProps) {
  const { net, from, to } = wire;
  return (
    <g
      className={isSelected ? `${styles.wire} ${styles.wireSelected}` : styles.wire}
      onPointerDown={() => onSelect(net)}
    >
      <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} className={styles.wireCatch}>
        <title>{`net ${net}`}</title>
      </line>
      <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} />
    </g>
  );
});

interface FlagMarkProps {
  readonly flag: Flag;
  /** Whether it is the name of a net, not what is there. */
  readonly isName: boolean;
  readonly tone: 'in' | 'edge' | 'out' | undefined;
}

export const FlagMark = memo(function FlagMark({ flag, isName, tone }: FlagMarkProps) {
  const { box } = flag;
  const className = isName ? styles.netName : `${styles.flag} ${tone ? styles[`flag-${tone}`] : ''}`;
  return (
    <g className={className} pointerEvents="none">
      {!isName && (
        <rect x={box.left} y={box.top} width={box.right - box.left} height={box.bottom - box.top} rx="0.3" />
      )}
      <text x={(box.left + box.right) / 2} y={box.bottom - 0.42} textAnchor="middle">
        {flag.text}
      </text>
    </g>
  );
});

/** A supply or ground, as a local symbol at each pin. */
export const RailSymbol = memo(function RailSymbol({ mark }: { mark: RailMark }) {
  const sign = mark.way === 'up' ? -1 : 1;
  const start = mark.y + sign * 1;
  return (
    <g className={styles.supplyMark}>
      <path d={`M${mark.from.x} ${mark.from.y}L${mark.x} ${mark.y}V${start}`} />
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
});
