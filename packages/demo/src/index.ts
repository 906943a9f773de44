import type { DemoUnit } from './demo-unit.ts';
import { droverOverdrive } from './drover-overdrive.ts';
import { dunlinDriver } from './dunlin-driver.ts';
import { heronAutopan } from './heron-autopan.ts';
import { larkDiscPreamp } from './lark-disc-preamp.ts';
import { ploverMicrophone } from './plover-microphone.ts';
import { wrenTalkback } from './wren-talkback.ts';

export { DEMO_DRAWER } from './drawer.ts';
export type { DemoPhoto, DemoReading, DemoUnit } from './demo-unit.ts';
export { droverOverdrive, dunlinDriver, heronAutopan, larkDiscPreamp, ploverMicrophone, wrenTalkback };

/** All units of the demo workshop; the last one lies on top of the bench. */
export const DEMO_UNITS: readonly DemoUnit[] = [
  dunlinDriver,
  heronAutopan,
  droverOverdrive,
  ploverMicrophone,
  wrenTalkback,
  larkDiscPreamp,
];
