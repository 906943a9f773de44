import type { Layer } from '@zemble/contract';
import { formatQuantity, type Unit } from '@zemble/core';
import { useSelection } from '../../unit/selection.tsx';
import styles from './readouts.module.css';

interface Props {
  readonly slopes: readonly { readonly ref: string; readonly perPercent: number }[];
  readonly unit: Unit;
  readonly layer: Layer;
}

/** Parts in the order in which they move a readout, each with a bar to the side it moves it to. */
export function SlopeList({ slopes, unit, layer }: Props) {
  const { selectedRef, selectRef } = useSelection();
  const largest = Math.abs(slopes[0]?.perPercent ?? 0);
  const moving = slopes.filter((s) => Math.abs(s.perPercent) > 1e-3 * largest);
  return (
    <ol className={styles.slopes} tabIndex={0} aria-label="Parts by how far one per cent moves the readout">
      {moving.map(({ ref, perPercent }) => {
        const width = `${(50 * Math.abs(perPercent)) / largest}%`;
        return (
          <li key={ref}>
            <button
              className={`zb-link zb-ref${ref === selectedRef ? ' zb-net-on' : ''}`}
              onClick={() => selectRef(ref)}
            >
              {ref}
            </button>
            <span className={styles.slopeBar} aria-hidden>
              <span
                style={{
                  width,
                  [perPercent > 0 ? 'left' : 'right']: '50%',
                  background: `var(--zb-${layer})`,
                }}
              />
            </span>
            <span className="zb-number">
              {perPercent > 0 ? '+' : '−'}
              {formatQuantity(Math.abs(perPercent), unit, { digits: 2 })} a %
            </span>
          </li>
        );
      })}
    </ol>
  );
}
