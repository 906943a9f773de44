import type { AddStep, FitStep, MoveStep, Part, Step } from '@zemble/contract';

/** Steps of a change, as a way of doing makes them. */
export const fit = (ref: string, value: number): FitStep => ({ do: 'fit', ref, value });
export const move = (ref: string, pin: string, to: string): MoveStep => ({
  do: 'move',
  pin: `${ref}.${pin}`,
  to,
});
export const remove = (ref: string): Step => ({ do: 'remove', ref });
const add = (part: Part): AddStep => ({ do: 'add', part });

export const resistor = (ref: string, marked: number, a: string, b: string): AddStep =>
  add({ ref, kind: 'resistor', pins: { a, b }, marked });

/** A capacitor; an electrolytic's plus goes to `a`. */
export const capacitor = (ref: string, marked: number, a: string, b: string, polarised = false): AddStep =>
  add({ ref, kind: 'capacitor', pins: { a, b }, marked, ...(polarised ? { polarised: true } : {}) });

/** A potentiometer as a rheostat between two nets, its wiper tied to the far end so that a bad track never opens it. */
export const rheostat = (ref: string, marked: number, a: string, b: string, position: number): AddStep =>
  add({ ref, kind: 'potentiometer', pins: { 1: a, 2: b, 3: b }, marked, position });

/** A switch, drawn closed. */
export const contact = (ref: string, a: string, b: string): AddStep =>
  add({ ref, kind: 'switch', pins: { a, b }, closed: true });

export const other = (part: Part): AddStep => add(part);
