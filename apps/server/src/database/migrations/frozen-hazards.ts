// As it was when the migration that uses it was written: what a database went through stays as it was.

/** What can hurt in a unit; decides which cautions are shown and which tests are offered. */
const HAZARDS = [
  'mains',
  'switch-mode primary',
  'valve high tension',
  'large capacitors',
  'lithium',
  'hot parts',
  'battery only',
] as const;
type Hazard = (typeof HAZARDS)[number];

/** Other spellings of the hazards, as files and people have them. */
const SPELLINGS: readonly (readonly [RegExp, Hazard])[] = [
  [/switch.?mode|smps|switching (?:supply|primary)/i, 'switch-mode primary'],
  [/high.?tension|\bHT\b|\bB\+|valve|tube|plate (?:supply|voltage)|high.?voltage/i, 'valve high tension'],
  [/mains|line.?(?:voltage|powered)|230 ?V|240 ?V|120 ?V|110 ?V/i, 'mains'],
  [/(?:large|big|bank|super).{0,12}cap|supercap|electrolytics? bank/i, 'large capacitors'],
  [/lithium|li.?ion|lipo/i, 'lithium'],
  [/\bhot\b|heat/i, 'hot parts'],
  [/battery/i, 'battery only'],
];

/** The hazard that a free text names, in any case and by the trade's other words; undefined when it names none. */
function hazardOf(text: string): Hazard | undefined {
  const plain = text.trim().toLowerCase();
  return HAZARDS.find((h) => h === plain) ?? SPELLINGS.find(([pattern]) => pattern.test(text))?.[1];
}

/** A list of hazards as it came: those that are known, and the others as notes, so that nothing written is lost. */
export function splitHazards(texts: readonly string[]): { hazards: Hazard[]; notes: string[] } {
  const hazards = new Set<Hazard>();
  const notes: string[] = [];
  for (const text of texts) {
    const hazard = hazardOf(text);
    if (hazard) hazards.add(hazard);
    if (text.trim() !== '' && !HAZARDS.some((h) => h === text.trim().toLowerCase())) notes.push(text.trim());
  }
  return { hazards: [...hazards], notes };
}
