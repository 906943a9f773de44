import { TECHNOLOGIES, type PartKind, type StockItem } from '@zemble/contract';
import { KINDS } from '../../circuit/circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { modelNamed } from '../../circuit/models/index.ts';
import { parseValue, type QuantityKind } from '../../base/quantity/index.ts';
import { kindNamed, ratingOf } from './drawer-csv.ts';

export type StockLine =
  { readonly ok: true; readonly item: StockItem } | { readonly ok: false; readonly problem: Problem };

/** Kinds of parts that a bare value is taken for. */
const KIND_OF: Partial<Record<QuantityKind, PartKind>> = {
  resistor: 'resistor',
  capacitor: 'capacitor',
  inductor: 'inductor',
};

const bad = (detail: string): StockLine => ({
  ok: false,
  problem: problem('file/invalid', { where: 'this line', detail }),
});

/**
 * One item of a drawer as it is said over the counter: "4k7 1% 0.25W metal film x50 in A3", "100n 63V film 20x in B2",
 * "TL072 x4 in C1", "pot 100k". A kind comes first where the value does not say it; a count that is not said is one.
 */
export function parseStockLine(text: string): StockLine {
  const at = /(?:^|\s)(?:in|@)\s*(\S.*)$/i.exec(text);
  const place = (at?.[1] ?? '').trim().slice(0, 80);
  let rest = (at ? text.slice(0, at.index) : text).trim();
  if (rest === '') return bad('it says no part; write one like 4k7 1% x50 in A3');
  const technology = [...TECHNOLOGIES]
    .sort((a, b) => b.length - a.length)
    .find((t) => new RegExp(`(^|\\s)${t}(\\s|$)`, 'i').test(rest));
  if (technology) rest = rest.replace(new RegExp(`(^|\\s)${technology}(?=\\s|$)`, 'i'), ' ').trim();
  const words = rest.split(/\s+/);
  const named = words.length > 1 ? kindNamed(words[0]!) : undefined;
  if (named) words.shift();
  const main = words.shift()!;
  const valued = valueAndKind(main, named);
  if (!valued)
    return bad(
      `"${main}" is neither a value nor a type that is known; put what it is before it, as in opamp ${main}`,
    );
  const found: { tolerance?: number; voltage?: number; power?: number; count?: number } = {};
  for (const word of words) {
    const count = /^(?:[x×]\s*(\d{1,6})|(\d{1,6})\s*[x×])$/i.exec(word);
    const percent = /^±?([\d.,]+)\s*%$/.exec(word);
    const rating = count || percent ? null : ratingOf(word);
    if (count) found.count = Number(count[1] ?? count[2]);
    else if (percent) found.tolerance = Number(percent[1]!.replace(',', '.')) / 100;
    else if (rating && Object.keys(rating).length > 0) Object.assign(found, rating);
    else return bad(`"${word}" is no tolerance (5%), rating (63V, 0.25W) or count (x50)`);
  }
  if (found.tolerance !== undefined && !(found.tolerance <= 1)) return bad('a tolerance is 100 % at most');
  const { count = 1, ...more } = found;
  return { ok: true, item: { ...valued, ...more, ...(technology ? { technology } : {}), count, place } };
}

function valueAndKind(
  text: string,
  named: PartKind | undefined,
): { readonly kind: PartKind; readonly value: number | string } | undefined {
  if (named) {
    const quantity = KINDS[named].value;
    const parsed = quantity === null ? undefined : parseValue(text, { kind: quantity });
    if (parsed?.ok && parsed.readings[0].value > 0) return { kind: named, value: parsed.readings[0].value };
    const isValued = ['resistor', 'capacitor', 'inductor'].includes(quantity ?? '');
    return isValued ? undefined : { kind: named, value: text.slice(0, 80) };
  }
  const parsed = parseValue(text);
  const reading = parsed.ok ? parsed.readings.find((r) => KIND_OF[r.kind] && r.value > 0) : undefined;
  if (reading) return { kind: KIND_OF[reading.kind]!, value: reading.value };
  const model = modelNamed(text);
  return model ? { kind: model.kind, value: text.slice(0, 80) } : undefined;
}
