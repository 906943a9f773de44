import type { LayerPart } from '../../circuit/circuit/index.ts';
import { MODELS } from '../../circuit/models/index.ts';

/** A published parameter of a part or of its type. */
export const parameter = (p: LayerPart, name: string, usual: number): number => {
  const own = new Map<string, unknown>(Object.entries(p.params ?? {})).get(name);
  if (typeof own === 'number') return own;
  const model = MODELS.find((m) => m.name === p.model);
  const value = model && new Map<string, unknown>(Object.entries(model.params)).get(name);
  return typeof value === 'number' ? value : usual;
};

/** Whether a transistor is of the p type. */
export const isMirrored = (p: LayerPart): boolean => {
  const own = 'polarity' in p ? p.polarity : undefined;
  const params = MODELS.find((m) => m.name === p.model)?.params ?? {};
  const polarity = own ?? new Map<string, unknown>(Object.entries(params)).get('polarity');
  return polarity === 'pnp' || polarity === 'p';
};
