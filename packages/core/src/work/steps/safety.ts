import type { Hazard } from '@zemble/contract';
import { formatQuantity } from '../../base/quantity/index.ts';
import {
  dischargeOf,
  energyOf,
  HARMLESS_J,
  SAFE_V,
  WORKING_V,
  type Stored,
} from '../../bench/isolate/index.ts';
import type { Draft } from './bench-step.ts';

/** What is known of a unit before hands go into it. */
export interface Danger {
  readonly hazards: readonly Hazard[];
  /** What has to be let down, each through clips of its own. */
  readonly stored: readonly Stored[];
}

const LOCAL = 'Work on the mains side follows your local codes and is for licensed people.';
const PLUGGED: readonly Hazard[] = ['mains', 'switch-mode primary', 'valve high tension'];

/** Whether something stored has to be let down before hands go in: it can hurt, or there is more than a harmless voltage. */
const mustDischarge = (stored: Stored, hazards: readonly Hazard[]): boolean =>
  stored.isCautious === true ||
  energyOf(stored) >= HARMLESS_J ||
  stored.volt > SAFE_V ||
  hazards.includes('large capacitors');

const joined = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`;

/** Letting down one group, and measuring that it is. */
function lettingDown(stored: Stored, isFirst: boolean): Draft[] {
  const { ref, others = [] } = stored;
  const refs = ref === undefined ? [] : [ref, ...others];
  const at = ref ?? 'every reservoir capacitor that is not on the sheet';
  const with_ = others.length === 0 ? '' : `, which empties ${joined(others)} too,`;
  const id = (kind: string) => (isFirst ? kind : `${kind}:${ref ?? 'unseen'}`);
  return [
    {
      id: id('discharge'),
      kind: 'discharge',
      say: `Let ${at} down${with_} through a resistor: ${dischargeOf(stored).sentence}`,
      why: 'A charged capacitor hurts, and it breaks parts and meters.',
      refs,
      nets: [],
      caution: 'One hand, insulated clips, never a short.',
    },
    {
      id: id('dead'),
      kind: 'dead',
      say: `Measure across ${ref === undefined ? at : joined(refs)}: below ${formatQuantity(WORKING_V, 'V')} direct before a finger goes in; prove the meter on a battery before and after.`,
      why: 'A clip that slipped off leaves all of it charged.',
      refs,
      nets: [],
    },
  ];
}

/** What comes before hands go in: off, let down, measured, seen as it was, opened. */
export function safetySteps(danger: Danger, refs: readonly string[]): Draft[] {
  const { hazards, stored } = danger;
  const isPlugged = PLUGGED.some((h) => hazards.includes(h));
  const steps: Draft[] = [
    {
      id: 'safe',
      kind: 'safe',
      say: isPlugged
        ? 'Switch off, pull the mains plug and lay it where you see it; take batteries out.'
        : 'Switch off and disconnect the supply or the battery.',
      why: 'Nothing is soldered, cut or measured with ohms while a supply is on.',
      refs: [],
      nets: [],
      ...(isPlugged ? { caution: LOCAL } : {}),
    },
  ];
  stored.filter((s) => mustDischarge(s, hazards)).forEach((s, i) => steps.push(...lettingDown(s, i === 0)));
  return [
    ...steps,
    {
      id: 'photograph',
      kind: 'photograph',
      say: 'Photograph both sides and every plug and wire, before anything moves.',
      why: 'The way back is on the photo.',
      refs: [...refs],
      nets: [],
    },
    {
      id: 'mark',
      kind: 'mark',
      say: 'Mark the wires that come off: a stub of their colour stays on the old lug; have a bag ready for each part, with its designator.',
      why: 'Two wires of one colour look alike when they hang loose.',
      refs: [],
      nets: [],
    },
    {
      id: 'loosen',
      kind: 'loosen',
      say: 'Loosen what covers the board, and lay its screws down in their order.',
      why: 'A board that is pulled by its wires breaks the thin ones.',
      refs: [],
      nets: [],
    },
  ];
}
