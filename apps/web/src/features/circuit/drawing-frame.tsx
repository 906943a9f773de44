import { AimOutlined, CompressOutlined, MinusOutlined, PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { memo, useCallback, useEffect, useRef, type ComponentProps, type KeyboardEvent } from 'react';
import { paperOf, Schematic } from '../../ui/schematic/schematic.tsx';
import { useView } from '../../ui/schematic/view.ts';
import styles from './circuit.module.css';

/** Free paper that is shown around a part that is brought into sight, units. */
const AROUND = 3;

/** A drawing in a frame that scrolls and zooms, where the part that is chosen comes into sight. */
export const DrawingFrame = memo(function DrawingFrame(
  props: Omit<ComponentProps<typeof Schematic>, 'view'>,
) {
  const { drawing, selectedRef } = props;
  const view = useView(paperOf(drawing));
  const { show, zoom, fit, isWhole, frame } = view;
  const chosen = drawing.symbols.find((s) => s.part.ref === selectedRef);
  const bring = () => {
    if (!chosen) return;
    const { left, right, top, bottom } = chosen.body;
    show({ left: left - AROUND, right: right + AROUND, top: top - AROUND, bottom: bottom + AROUND });
  };
  const latest = useRef(bring);
  useEffect(() => {
    latest.current = bring;
  });
  const bringLatest = useCallback(() => latest.current(), []);
  // Chosen elsewhere, as in a list: it comes into sight by itself, and when it is drawn for the first time.
  const isDrawn = chosen !== undefined;
  useEffect(() => latest.current(), [selectedRef, isDrawn]);
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const done = { '+': () => zoom(1), '=': () => zoom(1), '-': () => zoom(-1), '0': fit }[event.key];
    if (!done) return;
    event.preventDefault();
    done();
  };
  return (
    <div className={styles.frame}>
      <div
        ref={frame}
        className={`zb-drawing ${styles.paper}`}
        tabIndex={0}
        role="group"
        aria-label="Drawing: + and - zoom, 0 fits it, arrows scroll"
        onKeyDown={onKey}
      >
        <Schematic {...props} view={view} />
      </div>
      <Tools
        chosenRef={chosen ? selectedRef : null}
        isWhole={isWhole}
        onBring={bringLatest}
        onFit={fit}
        onZoom={zoom}
      />
    </div>
  );
});

interface ToolsProps {
  readonly chosenRef: string | null;
  readonly isWhole: boolean;
  readonly onBring: () => void;
  readonly onFit: () => void;
  readonly onZoom: (steps: number) => void;
}

const Tools = memo(function Tools({ chosenRef, isWhole, onBring, onFit, onZoom }: ToolsProps) {
  return (
    <div className={styles.tools} role="group" aria-label="How much of the drawing is seen">
      {chosenRef !== null && (
        <Button
          icon={<AimOutlined />}
          onClick={onBring}
          aria-label={`Go to ${chosenRef}`}
          title={`Go to ${chosenRef}`}
        />
      )}
      <Button
        icon={<CompressOutlined />}
        onClick={onFit}
        disabled={isWhole}
        aria-label="Fit the drawing"
        title="Fit (0)"
      />
      <Button icon={<MinusOutlined />} onClick={() => onZoom(-1)} aria-label="Smaller" title="Smaller (-)" />
      <Button icon={<PlusOutlined />} onClick={() => onZoom(1)} aria-label="Larger" title="Larger (+)" />
    </div>
  );
});
