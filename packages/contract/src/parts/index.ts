import { capacitor } from './capacitor.ts';
import { capsule, clock, opamp, regulator, timer555 } from './chips.ts';
import { changeover, fuse, jack, jumper, relay, switchContact } from './contacts.ts';
import { diode, led, zener } from './diodes.ts';
import { inductor } from './inductor.ts';
import { headphone, plainLoad, speaker } from './loads.ts';
import type { PartDefinition } from './part-definition.ts';
import { potentiometer } from './potentiometer.ts';
import { resistor } from './resistor.ts';
import { box, signal, supply } from './sources.ts';
import { transformer } from './transformer.ts';
import { bjt, jfet, mosfet } from './transistors.ts';
import { pentode, triode } from './valves.ts';

/** Every kind of part by its name in a file. A new one is its definition and a line here. */
export const PART_DEFINITIONS = {
  resistor,
  potentiometer,
  capacitor,
  inductor,
  transformer,
  switch: switchContact,
  jumper,
  fuse,
  changeover,
  jack,
  relay,
  load: plainLoad,
  speaker,
  headphone,
  diode,
  zener,
  led,
  bjt,
  jfet,
  mosfet,
  triode,
  pentode,
  opamp,
  timer555,
  regulator,
  clock,
  capsule,
  supply,
  signal,
  box,
} as const satisfies Record<string, PartDefinition>;

export type PartKind = keyof typeof PART_DEFINITIONS;
export const PART_KINDS = Object.keys(PART_DEFINITIONS) as [PartKind, ...PartKind[]];

/** The definition of a kind, as what all of them have in common. */
export const definitionOf = (kind: PartKind): PartDefinition => PART_DEFINITIONS[kind];
export type { Params, PartDefinition } from './part-definition.ts';
