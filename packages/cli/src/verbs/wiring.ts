import {
  checkWiring,
  contactsOf,
  keyOfEnd,
  lugsOf,
  netOfWire,
  positionTable,
  resolveLayer,
} from '@zemble/core';
import { loadUnit } from '../file.ts';
import type { Options } from '../options.ts';

/** `wiring FILE`: what is wrong with the wires of a unit beside the circuit of a layer, planned unless it is named, and its map. */
export async function wiring(options: Options): Promise<unknown> {
  const unit = await loadUnit(options);
  const layer = options.text('layer') === undefined ? 'planned' : options.layer();
  const circuit = resolveLayer(unit.circuit, layer);
  const { ok, problems, wires } = checkWiring(circuit, unit.wires ?? [], unit.boards ?? []);
  const refs = new Set(wires.flatMap(({ ends }) => ends.flatMap((e) => (e.on === 'lug' ? [e.ref] : []))));
  return {
    ok,
    problems,
    wires: wires.map((read) => ({
      id: read.wire.id,
      ...(read.wire.colour === undefined ? {} : { colour: read.wire.colour }),
      from: keyOfEnd(read.ends[0]),
      to: keyOfEnd(read.ends[1]),
      net: netOfWire(read) ?? null,
    })),
    parts: circuit.parts
      .filter((p) => refs.has(p.ref))
      .map((part) => ({
        ref: part.ref,
        lugs: lugsOf(part).map(({ pin, label, x, y }) => ({ pin, label, x, y, net: part.pins[pin] })),
        positions: contactsOf(part).map(({ position, joined }) => ({ position, joined })),
      })),
    positions: positionTable(unit).map(({ ref, position, answers }) => ({
      ref,
      position,
      readouts: unit.readouts.map((r, i) => ({ id: r.id, value: answers[i]?.ok ? answers[i].value : null })),
    })),
  };
}
