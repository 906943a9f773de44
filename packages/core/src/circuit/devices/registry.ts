import type { PartKind } from '@zemble/contract';
import { bjt } from './bjt.ts';
import { capsule } from './capsule.ts';
import { capacitor } from './capacitor.ts';
import { changeover, contact, jack, relay } from './contact.ts';
import type { LayerPart, LayerPartOf } from '../circuit/index.ts';
import type { Device, DeviceType, Terminals } from './device.ts';
import { diode } from './diode.ts';
import { jfet, mosfet } from './fet.ts';
import { inductor } from './inductor.ts';
import { load } from './load.ts';
import { opamp } from './opamp.ts';
import { potentiometer } from './potentiometer.ts';
import { regulator } from './regulator.ts';
import { resistor } from './resistor.ts';
import { signal, supply } from './source.ts';
import { timer555 } from './timer555.ts';
import { transformer } from './transformer.ts';
import { pentode, triode } from './valve.ts';

/** Kinds that have equations; the others are counted in tracing and finding, and absent in analysis. */
export type ModelledKind = Exclude<PartKind, 'box' | 'clock'>;

/** The devices that can be computed. A new one is its file and a line here. */
const DEVICES: { readonly [K in ModelledKind]: DeviceType<K> } = {
  resistor,
  potentiometer,
  capacitor,
  inductor,
  switch: contact,
  jumper: contact,
  fuse: contact,
  changeover,
  jack,
  relay,
  load,
  speaker: load,
  headphone: load,
  diode,
  zener: diode,
  led: diode,
  bjt,
  jfet,
  mosfet,
  triode,
  pentode,
  opamp,
  timer555,
  regulator,
  transformer,
  capsule,
  supply,
  signal,
};

/** The device of a part; undefined where its kind has no equations. Throws `circuit/pin-open`. */
export function createDevice(
  part: LayerPart,
  value: number | null,
  terminals: Terminals,
): Device | undefined {
  if (part.kind === 'box' || part.kind === 'clock') return undefined;
  return create(part.kind, part, value, terminals);
}

/** One kind's device: part and device type are of the same kind by the registry's type. */
function create<K extends ModelledKind>(
  kind: K,
  part: LayerPart,
  value: number | null,
  terminals: Terminals,
): Device {
  return DEVICES[kind].create(part as LayerPartOf<K>, value, terminals);
}
