import type { Hazard, Heard } from '@zemble/contract';

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
  /** Sounds that it cannot explain: it is left out for these. */
  readonly notFor?: readonly Heard[];
  /** Only with one of these hazards. */
  readonly hazards?: readonly Hazard[];
}

/** Common practice, cheapest first. */
export const FIRST_CHECKS: readonly FirstCheck[] = [
  { id: 'volume', what: 'Every volume up, also the one in a menu; mute and standby off', rulesOut: 'a control that is only turned down', minutes: 0.3, kinds: ['control', 'mute line'] },
  { id: 'selector', what: 'The input selector stands on the input that is used', rulesOut: 'a wrong source', minutes: 0.3, kinds: ['switch'] },
  { id: 'headphone', what: 'No plug or adapter is left in the headphone socket', rulesOut: 'speakers switched off by a socket', minutes: 0.3, kinds: ['socket'], units: ['amplifier', 'speaker', 'keyboard', 'intercom', 'radio', 'mixer', 'sound board'] },
  { id: 'cables', what: 'Both ends of every cable really plugged; another cable tried', rulesOut: 'the cable', minutes: 1, kinds: ['cable'] },
  { id: 'battery', what: 'The battery measured under load, not just looked at', rulesOut: 'an empty battery', minutes: 0.5, kinds: ['battery'], hazards: ['battery only', 'lithium'] },
  { id: 'adapter', what: 'The adapter measured: voltage, polarity of the plug, direct or alternating', rulesOut: 'a dead or wrong adapter', minutes: 1, kinds: ['adapter'], units: ['pedal', 'keyboard', 'effect', 'mixer', 'preamplifier', 'sound board'] },
  { id: 'contacts', what: 'Every switch and control worked twenty times', rulesOut: 'dirty contacts', minutes: 1, kinds: ['switch', 'control'] },
  { id: 'fuse', what: 'Unplugged: the fuse taken out and measured, not just looked at', rulesOut: 'the fuse', minutes: 2, kinds: ['fuse'], hazards: ['mains', 'switch-mode primary', 'valve high tension'] },
  { id: 'look', what: 'Unplugged and open: dust, bulged caps, burns, cracked joints, loose connectors; smell it', rulesOut: 'what can be seen', minutes: 4, kinds: ['joint', 'reservoir capacitor'] },
  { id: 'factory-reset', what: 'A factory reset', rulesOut: 'a setting that went wrong', minutes: 3, kinds: ['processor', 'memory'], warning: 'It erases what the owner has saved: write the settings down first, and ask.', units: ['keyboard', 'sound board', 'effect', 'processor'] },
]; // prettier-ignore

/** The first checks for a kind of unit with its hazards, cheapest first. */
export function firstChecks(
  unitKind: string,
  hazards: readonly Hazard[],
  heard: readonly Heard[] = [],
): readonly FirstCheck[] {
  const kind = unitKind.toLowerCase();
  return FIRST_CHECKS.filter(
    (c) =>
      (!c.units || c.units.some((u) => kind.includes(u))) &&
      (!c.hazards || c.hazards.some((h) => hazards.includes(h))) &&
      (!c.notFor || heard.length === 0 || heard.some((h) => !c.notFor!.includes(h))),
  );
}

/** Kinds of block that a check judges; none for a check that is not known. */
export const checkedKinds = (id: string): readonly string[] =>
  FIRST_CHECKS.find((c) => c.id === id)?.kinds ?? [];
