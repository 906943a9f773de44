import type { Hazard, IntakeData, PathData } from '@zemble/contract';
import { blockKind } from './block-kinds.ts';

/** A check before any screw is turned. */
export interface FirstCheck {
  readonly id: string;
  readonly what: string;
  /** What it rules out when it is fine. */
  readonly rulesOut: string;
  readonly minutes: number;
  /** Kinds of block that it judges. */
  readonly kinds: readonly string[];
  /** Said where the check destroys something. */
  readonly warning?: string;
  /** Words in the kind of unit that make it worth asking; always asked when absent. */
  readonly units?: readonly string[];
  /** Asked of a silent unit, too, whose kind is not said, or whose path has such a block. */
  readonly silentToo?: true;
  /** Only with one of these hazards. */
  readonly hazards?: readonly Hazard[];
}

/** Common practice, cheapest first. */
export const FIRST_CHECKS: readonly FirstCheck[] = [
  { id: 'volume', what: 'Every volume up, also the one in a menu; mute and standby off', rulesOut: 'a control that is only turned down', minutes: 0.3, kinds: ['control', 'mute line'] },
  { id: 'selector', what: 'The input selector stands on the input that is used', rulesOut: 'a wrong source', minutes: 0.3, kinds: ['switch'] },
  { id: 'headphone', what: 'No plug or adapter is left in the headphone socket', rulesOut: 'speakers switched off by a socket', minutes: 0.3, kinds: ['socket'], units: ['amplifier', 'speaker', 'keyboard', 'intercom', 'radio', 'mixer', 'sound board'], silentToo: true },
  { id: 'cables', what: 'Both ends of every cable really plugged; another cable tried', rulesOut: 'the cable', minutes: 1, kinds: ['cable'] },
  { id: 'battery', what: 'The battery measured under load, not just looked at', rulesOut: 'an empty battery', minutes: 0.5, kinds: ['battery'], hazards: ['battery only', 'lithium'] },
  { id: 'adapter', what: 'The adapter measured: voltage, polarity of the plug, direct or alternating', rulesOut: 'a dead or wrong adapter', minutes: 1, kinds: ['adapter'], units: ['pedal', 'keyboard', 'effect', 'mixer', 'preamplifier', 'sound board'] },
  { id: 'contacts', what: 'Every switch and control worked twenty times', rulesOut: 'dirty contacts', minutes: 1, kinds: ['switch', 'control'] },
  { id: 'fuse', what: 'Unplugged: the fuse taken out and measured, not just looked at', rulesOut: 'the fuse', minutes: 2, kinds: ['fuse'], hazards: ['mains', 'switch-mode primary', 'valve high tension'] },
  { id: 'look', what: 'Unplugged and open: dust, bulged caps, burns, cracked joints, loose connectors; smell it', rulesOut: 'what can be seen', minutes: 4, kinds: ['joint', 'reservoir capacitor'] },
  { id: 'restart', what: 'Switched off, unplugged for half a minute, and on again', rulesOut: 'a processor that hangs', minutes: 1, kinds: ['processor'], warning: 'It erases what was not saved.', units: ['keyboard', 'sound board', 'effect', 'processor'], silentToo: true },
  { id: 'factory-reset', what: 'A factory reset', rulesOut: 'a setting that went wrong', minutes: 3, kinds: ['processor', 'memory'], warning: 'It erases what the owner has saved: write the settings down first, and ask.', units: ['keyboard', 'sound board', 'effect', 'processor'], silentToo: true },
]; // prettier-ignore

/** Words of a complaint that say that nothing is heard. */
const SILENT =
  /\b(?:no (?:sound|output|signal)|silent|silence|mute|dead|nothing (?:comes|is heard|heard))\b/i;

/** Whether a unit is complained of as silent, by what is heard or by the owner's words. */
const isSilent = ({ heard = [], words = '' }: IntakeData): boolean =>
  heard.includes('nothing') || (heard.length === 0 && SILENT.test(words));

/** What is known of a unit before it is opened. */
export interface Arrival {
  /** In the owner's words: "combo amplifier". */
  readonly kind: string;
  readonly hazards: readonly Hazard[];
  readonly intake?: IntakeData;
  readonly path?: PathData | undefined;
}

/** The first checks for a unit as it came, cheapest first; of a silent one those too that only some kinds need. */
export function firstChecks({ kind, hazards, intake = {}, path }: Arrival): readonly FirstCheck[] {
  const words = kind.trim().toLowerCase();
  const blocks = new Set((path?.blocks ?? []).map((b) => blockKind(b.kind, b.name ?? b.id).name));
  return FIRST_CHECKS.filter(
    (c) =>
      (!c.units ||
        c.units.some((u) => words.includes(u)) ||
        (c.silentToo === true && isSilent(intake) && (words === '' || c.kinds.some((k) => blocks.has(k))))) &&
      (!c.hazards || c.hazards.some((h) => hazards.includes(h))),
  );
}

/** Kinds of block that a check judges; none for a check that is not known. */
export const checkedKinds = (id: string): readonly string[] =>
  FIRST_CHECKS.find((c) => c.id === id)?.kinds ?? [];
