import type { Hole } from '@zemble/contract';
import { holeWords } from '@zemble/core';
import { Button, Select } from 'antd';
import { useSelection } from '../../unit/selection.tsx';
import styles from './board.module.css';

export const TOOLS = ['Move', 'Cut', 'Link', 'Terminal'] as const;
export type Tool = (typeof TOOLS)[number];

interface Props {
  readonly tool: Tool;
  /** The part that is chosen; undefined where none is. */
  readonly part: string | undefined;
  readonly onAct: (how: 'turn' | 'span' | 'off') => void;
  /** Where a link begins that is not ended yet. */
  readonly linkFrom: Hole | null;
  readonly nets: readonly string[];
  /** The net of the next terminal. */
  readonly net: string | null;
  readonly onNet: (net: string) => void;
}

/** What a tap on the board does, in words, and what can be done with the chosen part. */
export function BoardTools({ tool, part, onAct, linkFrom, nets, net, onNet }: Props) {
  const { selectedNet } = useSelection();
  return (
    <div className={styles.tools}>
      {tool === 'Move' && part !== undefined && (
        <>
          <strong className="zb-mono">{part}</strong>
          <Button size="small" onClick={() => onAct('turn')}>
            Turn (T)
          </Button>
          <Button size="small" onClick={() => onAct('span')}>
            Bend its leads (B)
          </Button>
          <Button size="small" onClick={() => onAct('off')}>
            Take it off
          </Button>
        </>
      )}
      {tool === 'Move' && part === undefined && (
        <span className="zb-dim">
          {selectedNet === null ? 'Drag a part; tap a hole to light its net.' : `${selectedNet} is lit.`}
        </span>
      )}
      {tool === 'Cut' && (
        <span className="zb-dim">Tap a hole to cut its strip there, or to take the cut back.</span>
      )}
      {tool === 'Link' && (
        <span className="zb-dim">
          {linkFrom
            ? `From ${holeWords(linkFrom)}: tap the other end, or the same hole to take its links out.`
            : 'Tap where the link begins.'}
        </span>
      )}
      {tool === 'Terminal' && (
        <>
          <Select
            size="small"
            showSearch
            placeholder="net"
            value={net}
            onChange={onNet}
            options={nets.map((n) => ({ value: n, label: n }))}
            aria-label="Net of the terminal"
            style={{ minWidth: 110 }}
          />
          <span className="zb-dim">
            Tap a hole where a wire of it leaves the board; tap a terminal to take it out.
          </span>
        </>
      )}
    </div>
  );
}
