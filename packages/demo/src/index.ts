import type { DemoUnit } from './demo-unit.ts';
import { larkDiscPreamp } from './lark-disc-preamp.ts';

export type { DemoReading, DemoUnit } from './demo-unit.ts';
export { larkDiscPreamp };

/** All units of the demo workshop, in the order they stand on the bench. */
export const DEMO_UNITS: readonly DemoUnit[] = [larkDiscPreamp];
