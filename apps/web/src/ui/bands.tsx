import { bandsFor } from '@zemble/core';
import { BAND_PAINT } from './band-paint.ts';
import styles from './bands.module.css';

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
              fill={BAND_PAINT[band]}
            />
          );
        })}
      </svg>
      <span className="zb-dim">{bands.join(' ')}</span>
    </span>
  );
}
