import type { PartKind } from '@halfsplit/contract';
import { bjt } from './bjt.ts';
import { capacitor } from './capacitor.ts';
import { contact } from './contact.ts';
import type { DeviceType } from './device.ts';
import { diode } from './diode.ts';
import { inductor } from './inductor.ts';
import { load } from './load.ts';
import { opamp } from './opamp.ts';
import { potentiometer } from './potentiometer.ts';
import { resistor } from './resistor.ts';
import { signal, supply } from './source.ts';

/** The devices that can be computed. A new one is its file and a line here. */
export const DEVICES: Partial<Record<PartKind, DeviceType>> = {
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
  opamp,
  supply,
  signal,
};
