import { netNamed, outlinePins, probePlaces, resolveLayer } from '@zemble/core';
import { Button, Popover } from 'antd';
import { useMemo } from 'react';
import { PinNotes } from './pin-notes.tsx';
import { OutlineFigure } from '../../ui/outline-figure.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';

/** The pins of the part that is chosen as hands find them, or where the net that is chosen is touched. */
export function Pins() {
  const { document } = useUnitContext();
  const { selectedRef, selectedNet } = useSelection();
  const now = useMemo(() => resolveLayer(document.circuit, 'proven'), [document.circuit]);
  const shown = useMemo(
    () => (selectedRef === null ? undefined : outlinePins(now.parts, selectedRef)),
    [now, selectedRef],
  );
  if (shown) {
    const { outline, labels, order, others } = shown;
    const meant = new Set(
      labels.flatMap(({ net }, i) =>
        selectedNet !== null && net !== null && netNamed(now, net) === selectedNet ? [i + 1] : [],
      ),
    );
    return (
      <Popover
        trigger="click"
        title={shown.words}
        content={
          <>
            <OutlineFigure outline={outline} labels={labels.map((l) => l.words)} meant={meant} />
            <PinNotes refName={selectedRef!} />
            {others.length > 0 && (
              <p className="zb-edge">
                Shown as {order}; it also comes as {others.join(' or ')}.
                <br />
                Say which in its line: pinout={order}
              </p>
            )}
          </>
        }
      >
        <Button size="small">pins</Button>
      </Popover>
    );
  }
  if (selectedRef !== null || selectedNet === null) return null;
  const [place] = probePlaces(now.parts, selectedNet);
  return place ? <span className="zb-dim">touch {place.words}</span> : null;
}
