import { balancedOutput } from './balanced-output.ts';
import { bassCorner } from './bass-corner.ts';
import { bleeder } from './bleeder.ts';
import { bridgeLoad } from './bridge-load.ts';
import { clockRange } from './clock-range.ts';
import { coupleLoad } from './couple-load.ts';
import { dummyLoad } from './dummy-load.ts';
import { forcePin, pullUp } from './force-pin.ts';
import { gainByEmitter } from './gain-by-emitter.ts';
import { gainByFeedback } from './gain-by-feedback.ts';
import { gainByPot } from './gain-by-pot.ts';
import { gainBySwitch } from './gain-by-switch.ts';
import { ledResistor } from './led-resistor.ts';
import { monoMix } from './mono-mix.ts';
import { muteRelay } from './mute-relay.ts';
import { pad } from './pad.ts';
import { plugInBooster } from './plug-in-booster.ts';
import { potAcross } from './pot-across.ts';
import { slowerByOne } from './slower-by-one.ts';
import { slowerByPot } from './slower-by-pot.ts';
import { slowerBySwitch } from './slower-by-switch.ts';
import { snubber } from './snubber.ts';
import { supplyCell, supplyChoke, supplyRegulator } from './supply-cell.ts';
import { swapChannels } from './swap-channels.ts';
import { timerDelay } from './timer-delay.ts';
import { trebleCorner } from './treble-corner.ts';
import type { Way } from './way.ts';
import { zobel } from './zobel.ts';

export { asksAt, makeWay, placeIn, type Made, type Promised } from './make.ts';
export type { Chosen, Place } from './place.ts';
export type { Answers, Ask, Way } from './way.ts';

/** Every way of doing. A new one is its file and a line here. */
export const WAYS: readonly Way[] = [
  gainByFeedback,
  gainByPot,
  gainBySwitch,
  gainByEmitter,
  bassCorner,
  trebleCorner,
  slowerBySwitch,
  slowerByPot,
  slowerByOne,
  clockRange,
  timerDelay,
  potAcross,
  supplyCell,
  supplyChoke,
  supplyRegulator,
  monoMix,
  pad,
  forcePin,
  pullUp,
  swapChannels,
  coupleLoad,
  bridgeLoad,
  balancedOutput,
  ledResistor,
  bleeder,
  zobel,
  snubber,
  dummyLoad,
  plugInBooster,
  muteRelay,
];
