import { addPathLine } from '@zemble/core';
import { lazy, Suspense, type ReactNode } from 'react';
import { useSelection } from '../../unit/selection.tsx';
import type { BlockView, PointView } from '../../ui/path-drawing.tsx';
import { usePath } from './use-path.ts';

const PathDrawing = lazy(() => import('../../ui/path-drawing.tsx').then((m) => ({ default: m.PathDrawing })));

interface Props {
  readonly blocks?: ReadonlyMap<string, BlockView>;
  readonly points?: ReadonlyMap<string, PointView>;
  readonly selectedBlock?: string | null;
  readonly onSelectBlock?: (id: string) => void;
  /** What choosing a point does, when it is more than selecting it. */
  readonly onSelectPoint?: (id: string) => void;
  /** Without a head of its own: it stands under somebody else's. */
  readonly isBare?: boolean;
  /** What stands in its head in the place of its name. */
  readonly switcher?: ReactNode;
}

/** The path as a drawing; drawing one block onto another links them. */
export function PathBoard(props: Props) {
  const { blocks, points, selectedBlock, onSelectBlock, onSelectPoint, isBare, switcher } = props;
  const { path, setPath } = usePath();
  const { selectedPoint, selectPoint } = useSelection();
  const link = (from: string, to: string) => {
    const made = addPathLine(path, `${from} > ${to}`);
    if (made.ok) setPath(made.path);
  };
  const board = (
    <div className="zb-drawing" tabIndex={0} role="group" aria-label="Path, scrolls">
      {!path || path.blocks.length === 0 ? (
        <p className="zb-empty-words">The path draws itself here.</p>
      ) : (
        <Suspense fallback={null}>
          <PathDrawing
            path={path}
            selectedPoint={selectedPoint}
            onSelectPoint={onSelectPoint ?? selectPoint}
            {...(blocks ? { blocks } : {})}
            {...(points ? { points } : {})}
            {...(selectedBlock === undefined ? {} : { selectedBlock })}
            {...(onSelectBlock ? { onSelectBlock } : {})}
            {...(isBare ? {} : { onLink: link })}
          />
        </Suspense>
      )}
    </div>
  );
  if (isBare) return board;
  return (
    <section className="zb-panel" aria-label="Path drawn">
      <header className="zb-panel-head">
        {switcher ?? <h2>Path</h2>}
        <span className="zb-dim">numbers are test points; draw from one block to another to link them</span>
      </header>
      {board}
    </section>
  );
}
