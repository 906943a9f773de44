import { memo } from 'react';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { LayerMark, ToneMark } from '../../ui/marks.tsx';
import styles from './rework.module.css';

/** What parts bear on the planned layer that stand near a limit: voltage, heat, junctions, years. */
export const Limits = memo(function Limits() {
  const { analysis } = useAnalysed();
  const { selectRef } = useSelection();
  const stresses = analysis?.layers.planned.stresses ?? [];
  if (stresses.length === 0) return null;
  return (
    <section className="zb-block" aria-label="Life and heat">
      <h2>
        Life and heat <LayerMark layer="planned" />{' '}
        <span className="zb-dim">planned, in a case of 40 °C</span>
      </h2>
      <ul className={styles.limits}>
        {stresses.map(({ ref, of, share, sentence }) => (
          <li key={`${ref} ${of}`}>
            <button className="zb-link" onClick={() => selectRef(ref)}>
              <ToneMark tone={share >= 1 ? 'out' : 'edge'} /> {sentence}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
});
