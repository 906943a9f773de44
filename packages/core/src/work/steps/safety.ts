import type { Hazard } from '@zemble/contract';
import { formatQuantity } from '../../base/quantity/index.ts';
import { dischargeOf, HARMLESS_J, SAFE_V, WORKING_V, type Stored } from '../../bench/isolate/index.ts';
import type { Draft } from './bench-step.ts';

/** What is known of a unit before hands go into it. */
export interface Danger {
  readonly hazards: readonly Hazard[];
  readonly stored: Stored | null;
}

const LOCAL = 'Work on the mains side follows your local codes and is for licensed people.';
const PLUGGED: readonly Hazard[] = ['mains', 'switch-mode primary', 'valve high tension'];

/** Whether what is stored has to be let down before hands go in: it can hurt, or there is more than a harmless voltage. */
export const mustDischarge = ({ hazards, stored }: Danger): boolean =>
  stored !== null &&
  (stored.isCautious === true ||
    (stored.farad * stored.volt ** 2) / 2 >= HARMLESS_J ||
    stored.volt > SAFE_V ||
    hazards.includes('large capacitors'));

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
  if (stored && mustDischarge(danger)) {
    const at = stored.ref === undefined ? 'every reservoir capacitor' : stored.ref;
    steps.push(
      {
        id: 'discharge',
        kind: 'discharge',
        say: `Let ${at} down through a resistor: ${dischargeOf(stored).sentence}`,
        why: 'A charged capacitor hurts, and it breaks parts and meters.',
        refs: stored.ref === undefined ? [] : [stored.ref],
        nets: [],
        caution: 'One hand, insulated clips, never a short.',
      },
      {
        id: 'dead',
        kind: 'dead',
        say: `Measure across ${at}: below ${formatQuantity(WORKING_V, 'V')} direct before a finger goes in; prove the meter on a battery before and after.`,
        why: 'A clip that slipped off leaves all of it charged.',
        refs: stored.ref === undefined ? [] : [stored.ref],
        nets: [],
      },
    );
  }
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
