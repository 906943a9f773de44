import { bassCorner } from './bass-corner.ts';
import { bleeder } from './bleeder.ts';
import { bridgeLoad } from './bridge-load.ts';
import { clockRange } from './clock-range.ts';
import { coupleLoad } from './couple-load.ts';
import { dummyLoad } from './dummy-load.ts';
import { forcePin } from './force-pin.ts';
import { gainByEmitter } from './gain-by-emitter.ts';
import { gainByFeedback } from './gain-by-feedback.ts';
import { gainByPot } from './gain-by-pot.ts';
import { gainBySwitch } from './gain-by-switch.ts';
import { ledResistor } from './led-resistor.ts';
import { monoMix } from './mono-mix.ts';
import { muteRelay } from './mute-relay.ts';
import { pad } from './pad.ts';
import { plugInBooster } from './plug-in-booster.ts';
import type { Recipe } from './recipe.ts';
import { slowerByOne } from './slower-by-one.ts';
import { slowerByPot } from './slower-by-pot.ts';
import { slowerBySwitch } from './slower-by-switch.ts';
import { snubber } from './snubber.ts';
import { supplyCell } from './supply-cell.ts';
import { swapChannels } from './swap-channels.ts';
import { timerDelay } from './timer-delay.ts';
import { trebleCorner } from './treble-corner.ts';
import { zobel } from './zobel.ts';

export type { Answers, Ask, Made, Recipe } from './recipe.ts';
export { Spot, type Chosen } from './spot.ts';

/** Every way of doing. A new one is its file and a line here. */
export const RECIPES: readonly Recipe[] = [
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
  supplyCell,
  monoMix,
  pad,
  forcePin,
  swapChannels,
  coupleLoad,
  bridgeLoad,
  ledResistor,
  bleeder,
  zobel,
  snubber,
  dummyLoad,
  plugInBooster,
  muteRelay,
];
