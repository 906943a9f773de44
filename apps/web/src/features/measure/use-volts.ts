import { useMemo } from 'react';
import { useLayer } from '../../unit/layer.tsx';
import { useAnalysed } from '../../unit/analysed.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';
import { useComputed } from '../../compute/use-computed.ts';
import { useShownVolts } from '../../compute/use-measuring.ts';
import { measuredVolts } from './measured-volts.ts';

type ByNet = ReadonlyMap<string, number>;

/** Direct voltages by net on the layer shown, V. */
export interface Volts {
  /** What a voltmeter would show: it loads the nets it stands at. */
  readonly shown: ByNet;
  /** What is there without one. */
  readonly free: ByNet;
  /** What was measured. */
  readonly seen: ByNet;
}

/** Computed and measured voltages; what the meter would show follows a moment after what is there. */
export function useVolts(): Volts {
  const { unit, document } = useUnitContext();
  const { analysis } = useAnalysed();
  const { layer } = useLayer();
  const computed = analysis?.layers[layer].volts;
  const loaded = useShownVolts(useComputed(document), layer);
  const free = useMemo(() => new Map(Object.entries(computed ?? {})), [computed]);
  const shown = useMemo(() => new Map([...free, ...Object.entries(loaded ?? {})]), [free, loaded]);
  const seen = useMemo(() => measuredVolts(unit, document), [unit, document]);
  return useMemo(() => ({ shown, free, seen }), [shown, free, seen]);
}
