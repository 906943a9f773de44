import { formatQuantity, judgeVoltage } from '@zemble/core';
import { useMemo, type ReactNode } from 'react';
import { useLayer } from '../../unit/layer.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { LayerWord } from '../../ui/marks.tsx';
import { PhotosPanel } from '../photos/index.ts';
import type { Volts } from './use-volts.ts';

/** The photo with the voltage at every point: the computed one, and what was measured. */
export function PhotoVoltagesPanel({
  volts: { shown: volts, seen },
  onChoose,
  switcher,
}: {
  volts: Volts;
  onChoose: (net: string) => void;
  /** Stands in the head, to go back to the circuit. */
  switcher: ReactNode;
}) {
  const { layer } = useLayer();
  const { unit } = useUnitContext();
  const { selectNet, selectPoint } = useSelection();
  const netOf = useMemo(() => {
    const points = new Map((unit.path?.testPoints ?? []).map((t) => [t.id, t.net]));
    return (target: string) => points.get(target) ?? target;
  }, [unit.path]);
  const labels = useMemo(() => {
    const targets = unit.photos.flatMap((photo) => photo.points.map((p) => p.target));
    const found = new Map<string, { text: string; tone: string | null }>();
    for (const target of targets) {
      const [expected, measured] = [volts.get(netOf(target)), seen.get(netOf(target))];
      if (expected === undefined) continue;
      const text = formatQuantity(expected, 'V', { digits: 3 });
      if (measured === undefined) found.set(target, { text, tone: null });
      else
        found.set(target, {
          text: `${text}, is ${formatQuantity(measured, 'V', { digits: 3 })}`,
          tone: judgeVoltage(measured, expected).kind,
        });
    }
    return found;
  }, [unit.photos, volts, seen, netOf]);
  return (
    <section className="zb-panel zb-circuit" aria-label="Board">
      <header className="zb-panel-head">
        {switcher}
        <span className="zb-dim zb-nowrap">
          volts for <LayerWord layer={layer} />
        </span>
      </header>
      <PhotosPanel
        isBare
        labels={labels}
        onSelectPoint={(target) => {
          selectPoint(target);
          const net = netOf(target);
          if (!volts.has(net)) return;
          selectNet(net);
          onChoose(net);
        }}
      />
    </section>
  );
}
