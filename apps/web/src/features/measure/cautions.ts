/** The usual caution for each hazard, said where readings are taken. */
const CAUTIONS: readonly (readonly [RegExp, string])[] = [
  [
    /mains|switch-mode/i,
    'Mains inside: unplug it before measuring, and let its large capacitors discharge. Leave work on the mains side to a licensed person, and follow your local code.',
  ],
  [
    /valve|tension/i,
    'High tension stays after unplugging: discharge it through a resistor, and measure that it is gone before you touch anything.',
  ],
  [
    /large cap|supercap/i,
    'Large capacitors: discharge each through a resistor before measuring, and check with the meter.',
  ],
  [/lithium/i, 'Lithium cell: disconnect it first, never short it, and do not solder to it.'],
];

/** Cautions that a unit's hazards call for; none for a battery toy. */
export function cautionsFor(hazards: readonly string[]): string[] {
  return CAUTIONS.filter(([pattern]) => hazards.some((h) => pattern.test(h))).map(([, words]) => words);
}
