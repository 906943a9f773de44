import { LAYERS, type Change, type Layer } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { valueOnLayer, type Circuit, type Part } from '../circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { buildLayer, circuitAt, distinctLayers, plainCircuit, resolveLayer } from './layer.ts';
import { withPlanned } from './planned-values.ts';

const VALUES = [undefined, null, 100, 220, 'open', 'short'] as const;
const KEPT = ['marked', 'found', 'proven'] as const;
const layered = fc
  .tuple(...KEPT.map(() => fc.constantFrom(...VALUES)))
  .map(([marked, found, proven]): Part => ({
    ref: 'R1',
    kind: 'resistor',
    pins: { a: 'x', b: '0' },
    ...(marked === undefined ? {} : { marked }),
    ...(found === undefined ? {} : { found }),
    ...(proven === undefined ? {} : { proven }),
  }));
const first = <T>(values: readonly T[]) => values.find((v) => v !== undefined && v !== null) ?? null;

describe('the value of a part on a layer, as nothing is changed', () => {
  it('is what was measured last of those that the layer has', () => {
    fc.assert(
      fc.property(layered, (part) => {
        const { marked, found, proven } = part;
        const on = (layer: Layer) => resolveLayer({ ground: '0', parts: [part] }, layer).parts[0]!.value;
        expect(on('marked')).toBe(first([marked]));
        expect(on('found')).toBe(first([found, marked]));
        expect(on('planned')).toBe(first([found, marked]));
        expect(on('proven')).toBe(first([proven, found, marked]));
        for (const layer of LAYERS) {
          expect(valueOnLayer(part, layer)?.value ?? null).toBe(on(layer));
          const [resolved] = resolveLayer({ ground: '0', parts: [part] }, layer).parts;
          // Nothing of another layer can be seen any more.
          for (const name of LAYERS) expect(resolved).not.toHaveProperty(name);
        }
      }),
    );
  });
});

const drifted = (): Circuit => {
  const circuit = circuitOf('V1 9V vcc 0\nR1 1k vcc a\nR2 1k a b\nC1 1u b 0 esr=0.1');
  const parts = circuit.parts.map((p) =>
    p.ref === 'R1' ? { ...p, found: 1200 } : p.ref === 'C1' ? { ...p, foundParams: { esr: 5 } } : p,
  );
  return { ...circuit, parts };
};
const change = (about: Partial<Change> & Pick<Change, 'steps'>): Change => ({
  id: 'c',
  name: 'A change',
  purpose: 'repair',
  state: 'planned',
  ...about,
});
const valueOn = (circuit: Circuit, ref: string, layer: Layer, set?: string) =>
  resolveLayer(circuit, layer, { set }).parts.find((p) => p.ref === ref)?.value;

describe('which layer shows which change', () => {
  const fit = { do: 'fit', ref: 'R1', value: 820 } as const;
  const over = (about: Partial<Change>) => ({ ...drifted(), changes: [change({ ...about, steps: [fit] })] });
  const seen = (about: Partial<Change>) => LAYERS.map((layer) => valueOn(over(about), 'R1', layer));

  it('is told by purpose and state', () => {
    const [marked, found] = [1000, 1200];
    expect(seen({})).toEqual([marked, found, 820, found]);
    expect(seen({ purpose: 'modification', state: 'done' })).toEqual([marked, found, 820, 820]);
    expect(seen({ state: 'undone' })).toEqual([marked, found, found, found]);
    expect(seen({ state: 'dropped' })).toEqual([marked, found, found, found]);
    expect(seen({ purpose: 'trial' })).toEqual([marked, found, found, found]);
    expect(seen({ purpose: 'trial', state: 'done' })).toEqual([marked, 820, found, 820]);
    expect(seen({ purpose: 'diagnosis', state: 'done' })).toEqual([marked, 820, found, 820]);
  });

  it('and by the set that is active, or asked for; what is done is done whatever the set', () => {
    const circuit: Circuit = {
      ...drifted(),
      sets: [{ id: 'A', active: true }, { id: 'B' }],
      changes: [
        change({ id: 'a', set: 'A', steps: [fit] }),
        change({ id: 'b', set: 'B', steps: [{ ...fit, value: 560 }] }),
        change({ id: 'all', steps: [{ ...fit, ref: 'R2', value: 330 }] }),
      ],
    };
    expect([valueOn(circuit, 'R1', 'planned'), valueOn(circuit, 'R2', 'planned')]).toEqual([820, 330]);
    expect(valueOn(circuit, 'R1', 'planned', 'B')).toBe(560);
    expect(valueOn(circuit, 'R2', 'planned', 'B')).toBe(330);
    expect(valueOn({ ...circuit, sets: [{ id: 'A' }, { id: 'B' }] }, 'R1', 'planned')).toBe(1200);
    const done = { ...circuit, changes: [change({ id: 'b', set: 'B', state: 'done', steps: [fit] })] };
    expect([valueOn(done, 'R1', 'planned'), valueOn(done, 'R1', 'proven')]).toEqual([1200, 820]);
  });

  it('a new part has no measures of the old one, and its own once it is proven', () => {
    const of = (about: Partial<Change>): Circuit => ({
      ...drifted(),
      changes: [change({ ...about, steps: [{ do: 'fit', ref: 'C1', value: 2e-6 }] })],
    });
    const esr = (circuit: Circuit, layer: Layer) =>
      resolveLayer(circuit, layer).parts.find((p) => p.ref === 'C1');
    expect(LAYERS.map((layer) => esr(of({ state: 'done' }), layer))).toMatchObject([
      { esr: 0.1, value: 1e-6 },
      { esr: 5, value: 1e-6 },
      { esr: 0.1, value: 2e-6 },
      { esr: 0.1, value: 2e-6 },
    ]);
    const circuit = of({ state: 'done' });
    const proven = {
      ...circuit,
      parts: circuit.parts.map((p) => (p.ref === 'C1' ? { ...p, proven: 2.1e-6 } : p)),
    };
    expect(LAYERS.map((layer) => valueOn(proven, 'C1', layer))).toEqual([1e-6, 1e-6, 2e-6, 2.1e-6]);
  });

  it('another type has none of the parameters that were given for the old one', () => {
    const circuit: Circuit = {
      ...circuitOf('V1 9V vcc 0\nQ1 2N3904 c=vcc b=b e=0\nR1 1M vcc b'),
      changes: [change({ steps: [{ do: 'fit', ref: 'Q1', part: { model: '2N3906', polarity: 'pnp' } }] })],
    };
    const given = circuit.parts.map((p) => (p.ref === 'Q1' ? ({ ...p, params: { BF: 90 } } as Part) : p));
    const now = resolveLayer({ ...circuit, parts: given }, 'planned').parts.find((p) => p.ref === 'Q1');
    expect(now).toMatchObject({ model: '2N3906', polarity: 'pnp' });
    expect(now).not.toHaveProperty('params');
  });
});

describe('layers that are the same circuit', () => {
  it('are computed once, and only those', () => {
    const circuit = drifted();
    const plain = {
      ...circuit,
      parts: circuit.parts.map(({ found: _, foundParams: _f, ...p }) => p as Part),
    };
    expect(distinctLayers(plain)).toEqual(['marked', 'marked', 'marked', 'marked']);
    expect(distinctLayers(circuit)).toEqual(['marked', 'found', 'found', 'found']);
    expect(distinctLayers(withPlanned(circuit, new Map([['R2', 5]])))).toEqual([
      'marked',
      'found',
      'planned',
      'found',
    ]);
    const steps = [{ do: 'remove', ref: 'R2' }] as const;
    const done = (purpose: Change['purpose']) => ({
      ...circuit,
      changes: [change({ purpose, state: 'done', steps })],
    });
    expect(distinctLayers(done('repair'))).toEqual(['marked', 'found', 'planned', 'planned']);
    expect(distinctLayers(done('trial'))).toEqual(['marked', 'found', 'planned', 'found']);
    // Whatever is said to be the same is the same.
    for (const each of [plain, circuit, done('repair'), done('trial')])
      distinctLayers(each).forEach((same, i) =>
        expect(resolveLayer(each, LAYERS[i]!)).toEqual(resolveLayer(each, same)),
      );
  });
});

describe('a layer written down', () => {
  const circuit: Circuit = {
    ...drifted(),
    changes: [
      change({
        state: 'done',
        steps: [
          { do: 'fit', ref: 'R2', value: 2200 },
          { do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: 10e3 } },
        ],
      }),
    ],
  };

  it('plainly is the same circuit on every layer', () => {
    for (const layer of LAYERS) {
      const plain = plainCircuit(circuit, layer);
      expect(plain.changes).toBeUndefined();
      for (const other of LAYERS)
        expect(resolveLayer(plain, other).parts).toEqual(resolveLayer(circuit, layer).parts);
    }
  });

  it('for a meter has what is printed on what is in, and what was found of it', () => {
    const now = circuitAt(circuit, 'proven');
    const at = (ref: string) => now.parts.find((p) => p.ref === ref);
    expect(at('R1')).toMatchObject({ marked: 1000, found: 1200 });
    expect(at('C1')).toMatchObject({ marked: 1e-6, foundParams: { esr: 5 } });
    expect(at('R2')).toMatchObject({ marked: 2200 });
    expect(at('R9')).toMatchObject({ marked: 10e3 });
    expect(at('R2')).not.toHaveProperty('found');
    expect(resolveLayer(now, 'found').parts).toEqual(buildLayer(circuit, 'proven').circuit.parts);
    expect(circuitAt(drifted(), 'found')).toEqual(drifted());
  });
});
