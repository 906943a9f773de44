import { seededRandom, type Circuit } from '../src/index.ts';
import { noClaims, rightAbove, searchPlanted } from '../src/testing/claims.ts';

/** Borders of the bins in which claims are counted. */
const BORDERS = [0.5, 0.6, 0.7, 0.8, 0.9, 0.99, 1];

const share = (part: number, whole: number) => (whole === 0 ? '–' : `${((100 * part) / whole).toFixed(1)} %`);

/** How often claims about parts are right, over every single fault of some units on the second bench, as lines of text. */
export function reliabilityOf(units: readonly Circuit[], seed: number): string[] {
  const random = seededRandom(seed);
  const found = noClaims();
  const left = units.filter((unit) => !searchPlanted(unit, random, found)).length;
  const bins = BORDERS.slice(1).map((high, i) => {
    const low = BORDERS[i]!;
    const inside = found.claims.filter((c) => c.chance > low && c.chance <= high);
    const right = inside.filter((c) => c.isRight).length;
    return `  claimed ${low} to ${high}: right ${right} of ${inside.length}, ${share(right, inside.length)}`;
  });
  const [nine, ninetyNine] = [rightAbove(found, 0.9), rightAbove(found, 0.99)];
  return [
    `claims about parts, ${found.count} faults of ${units.length - left} units on the second bench`,
    ...bins,
    `  above 0.9 right ${share(nine.right, nine.count)}, above 0.99 right ${share(ninetyNine.right, ninetyNine.count)}`,
    `  true part in the first group ${share(found.first, found.count)}, in the first three ${share(found.amongThree, found.count)}, ${(found.measurements / found.count).toFixed(2)} measurements`,
    `  with one wrong reading first ${share(found.firstDespite, found.withWrong)}, the reading named ${share(found.named, found.withWrong)}`,
  ];
}
