import { bandsFor, type BandColour } from '@halfsplit/core';
import styles from './bands.module.css';

/** Paint of the bands; a colour code, not a part of the theme (IEC 60062). */
const PAINT: Record<BandColour, string> = {
  black: '#1d1d1f',
  brown: '#7a4a21',
  red: '#c8261d',
  orange: '#e8781a',
  yellow: '#f2c81f',
  green: '#2f8a3d',
  blue: '#2459b8',
  violet: '#7d3fa8',
  grey: '#8b8d90',
  white: '#f7f7f4',
  gold: '#b8922f',
  silver: '#b9bcc0',
  pink: '#e79ab4',
};

/** The colour bands of a resistor, drawn and in words; nothing when the value has none. */
export function Bands({ ohms, tolerance }: { ohms: number; tolerance: number }) {
  const bands = bandsFor(ohms, tolerance);
  if (!bands) return null;
  const step = 14;
  return (
    <span className={styles.bands} title={bands.join(', ')}>
      <svg width={bands.length * step + 28} height="22" role="img" aria-label={`Bands: ${bands.join(', ')}`}>
        <rect x="0" y="10" width="100%" height="2" className={styles.bandLead} />
        <rect x="6" y="2" width={bands.length * step + 16} height="18" rx="6" className={styles.bandBody} />
        {bands.map((band, i) => {
          const isTolerance = i === bands.length - 1 && bands.length > 3;
          return (
            <rect
              key={i}
              x={14 + i * step + (isTolerance ? 4 : 0)}
              y="2"
              width="6"
              height="18"
              fill={PAINT[band]}
            />
          );
        })}
      </svg>
      <span className="hs-dim">{bands.join(' ')}</span>
    </span>
  );
}
