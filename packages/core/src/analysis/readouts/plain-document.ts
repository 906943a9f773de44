import type { Layer, Readout } from '@zemble/contract';
import { plainCircuit, resolveLayer } from '../../circuit/changes/index.ts';
import {
  netNamed,
  readoutFields,
  type LayerCircuit,
  type UnitDocument,
} from '../../circuit/circuit/index.ts';

/** A readout that asks for nets by the names that hold in a circuit: those that a wire joined to others are renamed. */
function renamedFor(readout: Readout, circuit: LayerCircuit): Readout {
  const nets = readoutFields(readout).flatMap(({ name, field, value }) =>
    field.type === 'name' && field.of.startsWith('net') && typeof value === 'string'
      ? [[name, netNamed(circuit, value)] as const]
      : [],
  );
  return { ...readout, ...Object.fromEntries(nets) };
}

/**
 * A unit as it is on a layer, as one that came so: no changes, no values of other layers, no record of the work. Whatever
 * is computed of it on its marked layer is what the layer of the unit computes.
 */
export function plainDocument(
  { unit, circuit, readouts, settings, path }: UnitDocument,
  layer: Layer,
): UnitDocument {
  const resolved = resolveLayer(circuit, layer);
  return {
    unit,
    circuit: plainCircuit(circuit, layer),
    readouts: readouts.map((r) => renamedFor(r, resolved)),
    ...(settings ? { settings } : {}),
    ...(path ? { path } : {}),
  };
}
