import type { PartKind } from '@halfsplit/contract';
import { bjt } from './bjt.ts';
import { capsule } from './capsule.ts';
import { capacitor } from './capacitor.ts';
import { contact } from './contact.ts';
import type { DeviceType } from './device.ts';
import { diode } from './diode.ts';
import { jfet, mosfet } from './fet.ts';
import { inductor } from './inductor.ts';
import { load } from './load.ts';
import { opamp } from './opamp.ts';
import { potentiometer } from './potentiometer.ts';
import { resistor } from './resistor.ts';
import { signal, supply } from './source.ts';
import { timer555 } from './timer555.ts';
import { transformer } from './transformer.ts';
import { pentode, triode } from './valve.ts';

/** The devices that can be computed. A new one is its file and a line here. */
export const DEVICES: Readonly<Record<Exclude<PartKind, 'box'>, DeviceType>> = {
  resistor,
  potentiometer,
  capacitor,
  inductor,
  switch: contact,
  jumper: contact,
  fuse: contact,
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
  transformer,
  capsule,
  supply,
  signal,
};
