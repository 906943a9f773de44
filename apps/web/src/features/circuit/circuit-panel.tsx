import { unitChange } from '../../api/change.ts';
import type { Layer } from '@halfsplit/contract';
import {
  flagsFor,
  formatQuantity,
  judgeReading,
  judgeVoltage,
  valueOnLayer,
  type Drawing,
  type Part,
  type UnitDocument,
} from '@halfsplit/core';
import { Button, Switch } from 'antd';
import { useMemo, useState, type ReactNode } from 'react';
import { useLayer } from '../../unit/layer.tsx';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useSelection } from '../../unit/selection.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { LayerWord, verdictTone } from '../../ui/marks.tsx';
import { Schematic, type Emphasis } from '../../ui/schematic/schematic.tsx';
import { printedText, useDrawing } from './use-drawing.ts';
import styles from './circuit.module.css';

/** The circuit at the right of every stage: values and voltages of the layer shown, drifted and changed parts heavier. */
export function CircuitPanel({
  title = 'Circuit',
  measured,
  shown: asMetered,
  switcher,
}: {
  title?: string;
  /** Direct voltages that were measured, by net: they stand beside the computed ones, the wrong ones marked. */
  measured?: ReadonlyMap<string, number>;
  /** What a voltmeter would show by net, where that stands beside what was measured. */
  shown?: ReadonlyMap<string, number>;
  /** Stands in place of the title, to see something else here. */
  switcher?: ReactNode;
}) {
  const { unit, document, change } = useUnitContext();
  const { selectedRef, selectedNet, selectRef, selectNet } = useSelection();
  const { analysis } = useAnalysed();
  const { layer } = useLayer();
  const [showsVolts, setShowsVolts] = useState(true);
  const [drawing, drawAnew] = useDrawing(document, unit);
  const shown = useMemo(() => withLayerText(drawing, document, layer), [drawing, document, layer]);
  const emphasis = useMemo(() => emphasisOf(document, layer), [document, layer]);
  const computed = analysis?.layers[layer].volts ?? null;
  const volts = useMemo(
    () => (asMetered && asMetered.size > 0 ? Object.fromEntries(asMetered) : computed),
    [asMetered, computed],
  );
  const flags = useMemo(() => {
    if (!showsVolts || !volts) return [];
    const nets = [...new Set(drawing.wires.map((w) => w.net))];
    const texts = nets.flatMap((net): [string, string][] => {
      const [volt, seen] = [volts[net], measured?.get(net)];
      if (seen !== undefined && volt !== undefined)
        return [
          [
            net,
            `${formatQuantity(volt, 'V', { digits: 3 })}, is ${formatQuantity(seen, 'V', { digits: 3 })}`,
          ],
        ];
      return volt === undefined || Math.abs(volt) < HARDLY_V
        ? []
        : [[net, formatQuantity(volt, 'V', { digits: 3 })]];
    });
    return flagsFor(drawing, new Map(texts));
  }, [showsVolts, volts, drawing, measured]);
  const flagTones = useMemo(
    () =>
      new Map(
        [...(measured ?? [])].flatMap(([net, seen]) => {
          const volt = volts?.[net];
          return volt === undefined ? [] : [[net, judgeVoltage(seen, volt).kind] as const];
        }),
      ),
    [measured, volts],
  );
  const move = (ref: string, to: { x: number; y: number }) =>
    change(unitChange(unit, { nudges: { ...unit.nudges, [ref]: to } }));
  const reason = analysis?.layers[layer].reason;
  return (
    <section className="hs-panel hs-circuit" aria-label={title}>
      <header className="hs-panel-head">
        {switcher || <h2>{title}</h2>}
        <span className="hs-dim hs-nowrap">
          values and volts for <LayerWord layer={layer} />
        </span>
        <span className="hs-grow" />
        <Button
          type="text"
          onClick={drawAnew}
          title="Lay the circuit out from the beginning; symbols you moved stay"
        >
          Draw anew
        </Button>
        <label className={styles.switch}>
          <Switch
            size="small"
            checked={showsVolts}
            onChange={setShowsVolts}
            aria-label="Show direct voltages"
          />{' '}
          volts
        </label>
      </header>
      {reason && document.circuit.parts.length > 0 && <p className="hs-caution">{reason}</p>}
      <div className="hs-drawing" tabIndex={0} aria-label="Drawing, scrolls">
        {document.circuit.parts.length === 0 ? (
          <p className="hs-empty-words">The circuit draws itself here as you type its parts.</p>
        ) : (
          <Schematic
            drawing={shown}
            flags={flags}
            flagTones={flagTones}
            emphasis={emphasis}
            selectedRef={selectedRef}
            selectedNet={selectedNet}
            onSelectRef={selectRef}
            onSelectNet={selectNet}
            onMove={move}
          />
        )}
      </div>
    </section>
  );
}

/** Voltages below this are not worth a flag, V. */
const HARDLY_V = 1e-3;

/** The same drawing with the values of a layer written beside the symbols. */
function withLayerText(drawing: Drawing, document: UnitDocument, layer: Layer): Drawing {
  const parts = new Map(document.circuit.parts.map((p) => [p.ref, p]));
  const textOf = (part: Part) => printedText(part, valueOnLayer(part, layer)?.value ?? null);
  return {
    ...drawing,
    symbols: drawing.symbols.map((s) => {
      const part = parts.get(s.part.ref) ?? s.part;
      const [ref, value] = s.labels;
      return { ...s, part, labels: [ref!, { ...value!, text: textOf(part) }] };
    }),
  };
}

function emphasisOf(document: UnitDocument, layer: Layer): ReadonlyMap<string, Emphasis> {
  const found = new Map<string, Emphasis>();
  for (const part of document.circuit.parts) {
    const value = valueOnLayer(part, layer);
    if (!value || value.layer === 'marked') continue;
    if (value.layer === 'planned' || value.layer === 'proven') {
      found.set(part.ref, value.layer);
      continue;
    }
    const tone = verdictTone(judgeReading(part, { value: value.value, condition: 'leg lifted' }).kind);
    if (tone === 'out' || tone === 'edge') found.set(part.ref, tone);
  }
  return found;
}
