import { resolveLayer, unitOf, type PositionRow, type Readout } from '@zemble/core';
import { isSlow } from '../../compute/is-slow.ts';
import { usePositions } from '../../compute/use-positions.ts';
import { answerText } from '../../ui/readout-value.ts';
import { useUnitContext } from '../../unit/unit-context.tsx';
import styles from './wiring.module.css';

/** What each position of a control joins, and what the unit does in it: a table for each switch, jack and potentiometer. */
export function PositionTables() {
  const { document } = useUnitContext();
  const { rows, isWhole, why } = usePositions(document);
  if (why !== null)
    return (
      <p className="zb-problem" role="alert">
        What the positions do could not be worked out: {why}
      </p>
    );
  if (!rows || rows.length === 0) return null;
  const refs = [...new Set(rows.map((r) => r.ref))];
  return (
    <div className="zb-block">
      <h3>Positions, as planned</h3>
      {refs.map((ref) => (
        <PositionTable key={ref} part={ref} rows={rows.filter((r) => r.ref === ref)} isWhole={isWhole} />
      ))}
    </div>
  );
}

interface TableProps {
  readonly part: string;
  readonly rows: readonly PositionRow[];
  readonly isWhole: boolean;
}

function PositionTable({ part, rows, isWhole }: TableProps) {
  const { document } = useUnitContext();
  const pins = resolveLayer(document.circuit, 'planned').parts.find((p) => p.ref === part)?.pins ?? {};
  const lug = (pin: string) => `${pin} (${pins[pin] ?? 'nothing'})`;
  const textOf = (readout: Readout, i: number, { answers }: PositionRow): string => {
    const answer = answers[i];
    if (answer) return answerText(answer, unitOf(readout, document.readouts));
    return !isWhole && isSlow(readout) ? '…' : '–';
  };
  return (
    <table className={styles.positions}>
      <thead>
        <tr>
          <th className="zb-mono">{part}</th>
          {rows.map(({ position }) => (
            <th key={position}>{position}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>joins</td>
          {rows.map(({ position, joined }) => (
            <td key={position}>
              {joined.length === 0
                ? 'nothing'
                : joined.map(([a, b]) => `${lug(a)} with ${lug(b)}`).join(', ')}
            </td>
          ))}
        </tr>
        {document.readouts.map((readout, i) => {
          const texts = rows.map((row) => textOf(readout, i, row));
          const isStill = texts.every((text) => text === texts[0]);
          return (
            <tr key={readout.id} className={isStill ? 'zb-dim' : undefined}>
              <td>{readout.name}</td>
              {rows.map(({ position }, k) => (
                <td key={position} className="zb-mono zb-nowrap">
                  {texts[k]}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
