import { isPassive, KINDS } from '../../circuit/circuit/index.ts';
import {
  bestPair,
  formatQuantity,
  isPreferred,
  nearestPreferred,
  QUANTITY_KINDS,
} from '../../base/quantity/index.ts';
import { makeUp } from './make-up.ts';
import { sameValue, stockText, type Drawer, type Wanted } from './stock.ts';

/** Beyond this no maker's usual list goes, in SI units (common practice). */
const LARGEST_MADE = { resistor: 15e6, capacitor: 0.1, inductor: 10 } as const;
/** A value made up of what is there is worth naming when it comes this near. */
const NEAR = 0.02;

/** What can stand for a part that the drawer does not have, each with its reason in a sentence; empty where it is simply bought. */
export function substitutesFor(wanted: Wanted, drawer: Drawer): string[] {
  const { kind, value } = wanted;
  const quantity = KINDS[kind].value;
  if (typeof value !== 'number' || !isPassive(kind)) return [];
  if (quantity !== 'resistor' && quantity !== 'capacitor' && quantity !== 'inductor') return [];
  const text = (v: number) => formatQuantity(v, QUANTITY_KINDS[quantity]);
  const found: string[] = [];
  const [made] = makeUp(drawer, { ...wanted, value }, quantity).filter((w) => Math.abs(w.error) <= NEAR);
  if (made && made.made !== 'single') {
    const [a, b] = made.of.map((item) => `${stockText(item)}${item.place === '' ? '' : ` (${item.place})`}`);
    found.push(`In the drawer: ${a} and ${b} in ${made.made} make ${text(made.value)}.`);
  } else if (made && !sameValue(made.value, value)) {
    found.push(`In the drawer: ${text(made.value)}, ${percent(made.error)} away.`);
  }
  if (value > LARGEST_MADE[quantity]) {
    const wiring = quantity === 'capacitor' ? 'parallel' : 'series';
    const [a, b] = bestPair(value, 'E12', wiring, quantity).values;
    found.push(`${text(value)} is no longer made: ${text(b)} + ${text(a)} in ${wiring}.`);
  } else if (!isPreferred(value, 'E24') && !isPreferred(value, 'E96')) {
    found.push(
      `${text(value)} is in no series: ${text(nearestPreferred(value, 'E24'))} (E24) or ${text(nearestPreferred(value, 'E96'))} (E96).`,
    );
  }
  return found;
}

const percent = (error: number) => `${formatQuantity(100 * Math.abs(error), '', { digits: 2 })} %`;
