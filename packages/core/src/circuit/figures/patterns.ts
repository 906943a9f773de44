import { COUPLING } from './coupling.ts';
import { DEVICES } from './devices.ts';
import type { Pattern } from './elements.ts';
import { NETWORKS } from './networks.ts';
import { STAGES } from './stages.ts';
import { SUPPLIES } from './supplies.ts';

/** Every figure, those that stand for plainer ones before them. */
export const PATTERNS: readonly Pattern[] = [...DEVICES, ...NETWORKS, ...SUPPLIES, ...STAGES, ...COUPLING];
