import type { Figure } from '@zemble/core';
import { Button, Popover } from 'antd';
import { useMemo, useState } from 'react';
import styles from './circuit.module.css';

/** Which of the figures of a circuit is shown together. */
export function useFigures(figures: readonly Figure[]) {
  const [title, setTitle] = useState<string | null>(null);
  const shown = figures.find((f) => f.title === title);
  const together = useMemo(() => new Set(shown?.refs), [shown]);
  return useMemo(
    () => ({ figures, title: shown?.title ?? null, together, show: setTitle }),
    [figures, shown, together],
  );
}

export type Figures = ReturnType<typeof useFigures>;

/** What the trade calls the parts of this circuit: a press shows them together on the drawing. */
export function FiguresButton({ figures }: { readonly figures: Figures }) {
  if (figures.figures.length === 0) return null;
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      title="Figures of this circuit"
      content={
        <>
          <FigureNames list={figures.figures} figures={figures} isColumn />
          <p className="zb-dim">The one that is shown moves as one when a part of it is dragged.</p>
        </>
      }
    >
      <Button type="text">Figures</Button>
    </Popover>
  );
}

/** The figures that a part belongs to. */
export function FiguresOfPart({
  refName,
  figures,
}: {
  readonly refName: string | null;
  readonly figures: Figures;
}) {
  const list = figures.figures.filter((f) => refName !== null && f.refs.includes(refName));
  return <FigureNames list={list} figures={figures} />;
}

function FigureNames({
  list,
  figures: { title, show },
  isColumn,
}: {
  readonly list: readonly Figure[];
  readonly figures: Figures;
  readonly isColumn?: boolean;
}) {
  if (list.length === 0) return null;
  return (
    <span className={isColumn ? styles.names : undefined}>
      {list.map((f) => (
        <Button
          key={f.title}
          size="small"
          type={f.title === title ? 'primary' : 'text'}
          aria-pressed={f.title === title}
          onClick={() => show(f.title === title ? null : f.title)}
        >
          {f.title}
        </Button>
      ))}
    </span>
  );
}
