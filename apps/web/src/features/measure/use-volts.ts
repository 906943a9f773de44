import { useMemo } from 'react';
import { useLayer } from '../../app/layer.tsx';
import { useUnitContext } from '../../app/unit-context.tsx';
import { measuredVolts } from './measured-volts.ts';

/** Direct voltages by net: computed on the layer shown, and measured. */
export function useVolts(): {
  readonly volts: ReadonlyMap<string, number>;
  readonly seen: ReadonlyMap<string, number>;
} {
  const { unit, document, analysis } = useUnitContext();
  const { layer } = useLayer();
  const computed = analysis?.layers[layer].volts;
  const volts = useMemo(() => new Map(Object.entries(computed ?? {})), [computed]);
  const seen = useMemo(() => measuredVolts(unit, document), [unit, document]);
  return { volts, seen };
}
