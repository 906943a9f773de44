import { PART_KINDS, type OwnModel } from '@zemble/contract';
import { problem, type Problem } from '../../base/errors/index.ts';
import { parseValue } from '../../base/quantity/index.ts';
import { MODELS } from './library.ts';

export type OwnModelResult =
  { readonly ok: true; readonly model: OwnModel } | { readonly ok: false; readonly problem: Problem };

/**
 * A model of one's own from a line: its name, its kind, and its parameters under their published names.
 *
 * @example modelFromText('XQ1 bjt BF=420 IS=2e-14 pnp')
 */
export function modelFromText(line: string): OwnModelResult {
  const bad = (detail: string): OwnModelResult => ({
    ok: false,
    problem: problem('model/unreadable', { detail }),
  });
  const [name, kindWord, ...words] = line
    .replace(/\s*=\s*/g, '=')
    .trim()
    .split(/\s+/);
  if (!name || !kindWord) return bad('A model begins with its name and its kind, as "XQ1 bjt"');
  const polarity = kindWord === 'npn' || kindWord === 'pnp' ? kindWord : undefined;
  const kind = PART_KINDS.find((k) => k === (polarity ? 'bjt' : kindWord.toLowerCase()));
  const kinds = [...new Set(MODELS.map((m) => m.kind))];
  if (!kind || !kinds.includes(kind))
    return bad(`"${kindWord}" has no models; kinds with models are ${kinds.join(', ')}`);
  const params: Record<string, number | string> = polarity ? { polarity } : {};
  for (const word of words) {
    if (word === 'npn' || word === 'pnp' || word === 'n' || word === 'p') {
      params.polarity = word;
      continue;
    }
    const [parameter, text, ...more] = word.split('=');
    if (!parameter || text === undefined || more.length > 0)
      return bad(`"${word}" is not a parameter, as BF=200 is`);
    const parsed = parseValue(text, { kind: 'number', purpose: 'reading' });
    if (!parsed.ok) return bad(`"${text}" is not a number for ${parameter}`);
    params[parameter] = parsed.readings[0].value;
  }
  if (Object.keys(params).length === 0) return bad(`${name} has no parameters yet`);
  return { ok: true, model: { name, kind, params } };
}
