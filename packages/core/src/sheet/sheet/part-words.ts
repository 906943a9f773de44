import { QUANTITY_KINDS, type Field } from '@zemble/contract';
import { KINDS, markedValue, partFields, type Part } from '../../circuit/circuit/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';

/** "tolerance 5 %", "log", "polarised", "not closed": what a field says, in words. */
function fieldWords(field: Field, value: unknown): string | null {
  const label = field.label.toLowerCase();
  if (typeof value === 'number' && field.type === 'quantity')
    return field.of === 'ratio'
      ? `${label} ${Number((100 * value).toPrecision(4))} %`
      : `${label} ${formatQuantity(value, QUANTITY_KINDS[field.of])}`;
  if (typeof value === 'boolean') return value ? label : `not ${label}`;
  return typeof value === 'string' ? (field.type === 'word' ? value : `${label} ${value}`) : null;
}

/** Which way a pot goes: its wiper goes from pin 1 to pin 3 when it is turned clockwise, as it is counted by all makers. */
function turnWords({ kind, pins }: Part): string {
  if (kind !== 'potentiometer') return '';
  const [from, wiper, to] = [pins[1], pins[2], pins[3]];
  if (from === undefined || to === undefined || wiper === undefined) return '';
  // As a rheostat: what is left of the track is what counts.
  if (wiper === to) return '; clockwise it is more';
  if (wiper === from) return '; clockwise it is less';
  return `; clockwise ${wiper} goes from ${from} to ${to}`;
}

/**
 * A part as it was understood, in one line: "P1: 10 kΩ potentiometer, log; 1 a, 2 w, 3 b; clockwise w goes from a to b". Everything that a line said is
 * in it, so that a value read otherwise than it was meant is seen at once.
 */
export function partWords(part: Part): string {
  const { words, value, pins } = KINDS[part.kind];
  const marked = markedValue(part);
  const printed =
    typeof marked === 'number' ? formatQuantity(marked, QUANTITY_KINDS[value ?? 'number']) : (marked ?? '');
  const params = Object.entries(part.params ?? {}).map(([name, number]) => `${name} ${number}`);
  const fields = partFields(part).flatMap(({ field, value: said }) => fieldWords(field, said) ?? []);
  const nets = Object.entries(part.pins).map(([pin, net]) => (pins.length === 2 ? net : `${pin} ${net}`));
  const what = [printed, words, part.model ?? ''].filter((w) => w !== '').join(' ');
  return `${part.ref}: ${[what, ...fields, ...params].join(', ')}; ${nets.join(', ')}${turnWords(part)}`;
}
