import { useSelection } from '../../unit/selection.tsx';
import styles from './beeps.module.css';
import type { Beeps } from './use-beeps.ts';

/** The nets as they were found, the pins of each; what nothing has beeped with yet stands last. */
export function NetsList({ beeps }: { beeps: Beeps }) {
  const { nets, placeOf } = beeps;
  const { selectedNet, selectNet } = useSelection();
  const found = nets.nets.filter((n) => n.pins.length > 1);
  const alone = nets.nets.filter((n) => n.pins.length === 1);
  if (nets.nets.length === 0) return null;
  // Units of a package share some of its pins.
  const shortly = (pins: readonly string[]) => [...new Set(pins.map((pin) => placeOf(pin).short))].join(', ');
  return (
    <>
      {found.length > 0 && (
        <table className="zb-table">
          <thead>
            <tr>
              <th>Net</th>
              <th>pins</th>
            </tr>
          </thead>
          <tbody>
            {found.map(({ name, pins }) => (
              <tr
                key={name}
                className={name === selectedNet ? 'zb-row-selected' : undefined}
                onClick={() => selectNet(name)}
              >
                <td className="zb-mono zb-nowrap">
                  <button className="zb-link">{name}</button>
                </td>
                <td className={styles.pins}>
                  {shortly(pins)}
                  {pins.some((pin) => nets.concluded.has(pin)) && (
                    <div className="zb-dim">
                      concluded, not yet heard: {shortly(pins.filter((pin) => nets.concluded.has(pin)))}
                    </div>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {alone.length > 0 && (
        <p className={styles.alone}>
          <strong>Nothing beeps with these yet:</strong> {shortly(alone.flatMap(({ pins }) => pins))}
        </p>
      )}
    </>
  );
}
