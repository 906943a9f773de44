import type { Heard } from '@zemble/contract';
import { FAULT_MODES, type FaultMode } from './symptom.ts';

/** What a sound says about the way in which something failed (common practice). */
const SOUNDS: Readonly<Record<Heard, Partial<Record<FaultMode, number>>>> = {
  nothing: { none: 1, drags: 1, sags: 1 },
  hum: { hum: 1 },
  hiss: { weak: 0.5, hum: 0.5 },
  crackle: { none: 0.5, weak: 0.5 },
  distortion: { distorted: 1 },
  weak: { weak: 1, drags: 0.3, sags: 0.3 },
  'wrong pitch or speed': { distorted: 1 },
  thump: { distorted: 0.5, hum: 0.5 },
  'pulsing power': { drags: 1, sags: 1, none: 0.3 },
};
/** A way of failing that does not sound like what is heard still has this chance: people mishear. */
const MISHEARD = 0.1;

/** Likelihood of what is heard under each way of failing; null when nothing was said. */
export function heardModes(heard: readonly Heard[]): Record<FaultMode, number> | null {
  if (heard.length === 0) return null;
  const of = (mode: FaultMode) => Math.max(...heard.map((h) => SOUNDS[h][mode] ?? 0), MISHEARD);
  return Object.fromEntries(FAULT_MODES.map((mode) => [mode, of(mode)])) as Record<FaultMode, number>;
}
