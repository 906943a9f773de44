import { HAZARDS, type Hazard } from '@zemble/contract';

const LOCAL = 'Follow your local codes; work on the mains side is for licensed people.';

/** Usual cautions by hazard, in the order of danger. */
const CAUTIONS: Readonly<Record<Hazard, readonly string[]>> = {
  mains: [
    'Unplug before you open it, and keep the plug where you see it.',
    `Nothing on the mains side is measured live here. ${LOCAL}`,
  ],
  'switch-mode primary': [
    'The primary stays charged to the peak of the mains after unplugging: discharge its capacitor through a resistor and measure it.',
    `It is live to the mains while plugged in. ${LOCAL}`,
  ],
  'valve high tension': [
    'High tension kills, on and after: switch off, unplug, discharge every reservoir, measure, and only then reach in.',
    `Live work is for people trained for it, one hand behind the back. ${LOCAL}`,
  ],
  'large capacitors': [
    'Large and super capacitors weld a screwdriver: discharge through a resistor, never with a short.',
  ],
  lithium: ['A lithium cell that is bent, hot or swollen goes outside, on stone. Never charge it again.'],
  'hot parts': ['Heat sinks, valves and resistors burn for minutes after switching off.'],
  'battery only': ['Battery powered: it may be probed while it runs. Take care not to short the battery.'],
};

/** The usual cautions for a unit's hazards, the most dangerous first; a battery-only unit has no other. */
export const cautionsOf = (hazards: readonly Hazard[]): readonly string[] =>
  HAZARDS.filter((known) => hazards.includes(known)).flatMap((h) => CAUTIONS[h]);
