import type { PathData } from '@zemble/contract';
import type { SearchState } from '@zemble/core';
import { ToneMark } from '../../ui/marks.tsx';
import type { BlockView } from '../../ui/path-drawing.tsx';
import { standWord } from '../../ui/path-drawing.tsx';

const TONES = { cleared: 'in', suspected: 'edge', convicted: 'out', untested: 'unsure' } as const;
const SHOWN = 0.005;

interface Props {
  readonly state: SearchState;
  readonly path: PathData;
  readonly views: ReadonlyMap<string, BlockView>;
  readonly selected: string | null;
  readonly onSelect: (id: string) => void;
}

/** Blocks by suspicion, each with its reason; those that are cleared are only counted. */
export function SuspectsList({ state, path, views, selected, onSelect }: Props) {
  const shown = state.suspects.filter((s) => s.alone >= SHOWN);
  const cleared = state.suspects.length - shown.length;
  return (
    <table className="zb-table zb-suspects">
      {state.complaint !== null && <caption className="zb-dim">{state.complaint}</caption>}
      <thead>
        <tr>
          <th>Suspects</th>
          <th
            className="zb-right"
            title="That it is this one alone; of two at once below. Together they add up."
          >
            chance
          </th>
          <th>why</th>
        </tr>
      </thead>
      <tbody>
        {shown.map(({ block, why }) => {
          const { id, name } = path.blocks[block]!;
          const view = views.get(id);
          if (!view) return null;
          return (
            <tr
              key={id}
              className={id === selected ? 'zb-row-selected' : undefined}
              onClick={() => onSelect(id)}
            >
              <td>
                <button className="zb-link" onClick={() => onSelect(id)}>
                  <ToneMark tone={TONES[view.stand]} /> <strong>{name ?? id}</strong>
                </button>
              </td>
              <td className="zb-number">{standWord(view)}</td>
              <td className="zb-why">{why}</td>
            </tr>
          );
        })}
        {state.pairs.map(({ blocks: [a, b], probability }) => (
          <tr key={`${a} ${b}`}>
            <td>
              {path.blocks[a]!.name} and {path.blocks[b]!.name}, both
            </td>
            <td className="zb-number">{Math.round(probability * 100)} %</td>
            <td className="zb-why">Both at once explain what one alone does not.</td>
          </tr>
        ))}
        {cleared > 0 && (
          <tr>
            <td colSpan={3} className="zb-dim">
              {cleared} cleared
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}
