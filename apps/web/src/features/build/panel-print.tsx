import { useParams } from 'react-router';
import { useUnit } from '../../api/use-unit.ts';
import styles from './board.module.css';
import { Ruler } from './ruler.tsx';
import { TrueSize } from './true-size.tsx';

/** Arms of a cross at the middle of a hole, mm. */
const CROSS_MM = 3;
/** Paper around the panel, mm. */
const EDGE_MM = 2;

/** A drilling template on paper at its own size: a cross and a circle for each hole, with its diameter. */
export function PanelPrint() {
  const { unitId = '', panelId = '' } = useParams();
  const { unit, error } = useUnit(unitId);
  const panel = unit?.panels.find((p) => p.id === panelId);
  if (!unit || !panel)
    return (
      <p className="zb-empty-words">
        {error?.message ?? (unit ? `There is no panel ${panelId}.` : 'Fetching the panel')}
      </p>
    );
  const { widthMm, heightMm, controls } = panel;
  return (
    <main className={styles.sheet}>
      <h1>
        {unit.name}, panel {panel.name ?? panel.id}: drilling template, seen from above
      </h1>
      <TrueSize
        box={{ x: -EDGE_MM, y: -EDGE_MM, width: widthMm + 2 * EDGE_MM, height: heightMm + 2 * EDGE_MM }}
        mmAUnit={1}
        label="Drilling template at its own size"
        look={{ fill: 'none', stroke: 'currentColor', strokeWidth: 0.2 }}
      >
        <rect width={widthMm} height={heightMm} />
        {controls.map(({ id, at, holeMm, ref, name }) => (
          <g key={id}>
            <circle cx={at.x} cy={at.y} r={holeMm / 2} />
            <path
              d={`M ${at.x - CROSS_MM} ${at.y} h ${2 * CROSS_MM} M ${at.x} ${at.y - CROSS_MM} v ${2 * CROSS_MM}`}
            />
            <text x={at.x + holeMm / 2 + 1} y={at.y - 1} fontSize={3} stroke="none" fill="currentColor">
              {name ?? ref ?? id} ⌀{holeMm}
            </text>
          </g>
        ))}
      </TrueSize>
      <Ruler />
    </main>
  );
}
