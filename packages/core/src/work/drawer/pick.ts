import type { StockItem } from '@zemble/contract';
import { isPassive, KINDS } from '../../circuit/circuit/index.ts';
import { bestPair, formatQuantity, isPreferred, QUANTITY_KINDS } from '../../base/quantity/index.ts';
import { makeUp } from './make-up.ts';
import { matching, stockText, type Drawer, type Wanted } from './stock.ts';

/** What hands take out of the drawer for a part: one item, or two that make up a value that nobody makes. */
export interface Picked {
  readonly made: 'single' | 'series' | 'parallel';
  readonly of: readonly StockItem[];
}

/** A value made up of two parts is the value that is meant when it comes this near. */
const NEAR = 0.01;

/** A value that is in no list of makers, which only two parts together have; undefined for what is simply one part. */
function madeUpKind({ kind, value }: Wanted): 'resistor' | 'capacitor' | 'inductor' | undefined {
  const quantity = KINDS[kind].value;
  if (typeof value !== 'number' || !isPassive(kind)) return undefined;
  if (quantity !== 'resistor' && quantity !== 'capacitor' && quantity !== 'inductor') return undefined;
  return isPreferred(value, 'E24') || isPreferred(value, 'E96') ? undefined : quantity;
}

/** What is taken out of the drawer for a part, the item that suits it most narrowly; undefined where it is not there. */
export function pickFor(drawer: Drawer, wanted: Wanted): Picked | undefined {
  const [item] = matching(drawer, wanted);
  if (item) return { made: 'single', of: [item] };
  const kind = madeUpKind(wanted);
  if (kind === undefined || typeof wanted.value !== 'number') return undefined;
  return makeUp(drawer, { ...wanted, value: wanted.value }, kind).find(
    ({ made, error }) => made !== 'single' && Math.abs(error) <= NEAR,
  );
}

/**
 * Where a part comes from, as it is said at a step: "from A3", "4.7 kΩ (A3) with 680 Ω (A2) across it"; what two values make it up
 * where nobody makes it and the drawer has neither. Undefined where there is nothing to say.
 */
export function pickWords(drawer: Drawer, wanted: Wanted): string | undefined {
  const picked = pickFor(drawer, wanted);
  if (picked) {
    const [a, b] = picked.of.map((item) => ({ text: stockText(item), place: item.place }));
    if (!b) return a!.place === '' ? undefined : `from ${a!.place}`;
    const placed = ({ text, place }: typeof b) => (place === '' ? text : `${text} (${place})`);
    return togetherWords(placed(a!), placed(b), picked.made);
  }
  const kind = madeUpKind(wanted);
  if (kind === undefined || typeof wanted.value !== 'number') return undefined;
  const pairs = (['series', 'parallel'] as const).map((wiring) => ({
    wiring,
    ...bestPair(wanted.value as number, 'E24', wiring, kind),
  }));
  const best = pairs.sort((x, y) => Math.abs(x.error) - Math.abs(y.error))[0]!;
  if (Math.abs(best.error) > NEAR) return undefined;
  const text = (v: number) => formatQuantity(v, QUANTITY_KINDS[kind]);
  return togetherWords(text(best.values[0]), text(best.values[1]), best.wiring);
}

const togetherWords = (a: string, b: string, made: Picked['made']): string =>
  made === 'parallel' ? `two parts: ${a} with ${b} across it` : `two parts: ${a} and ${b} end to end`;
