import { describe, expect, it } from 'vitest';
import { KINDS } from '../circuit/index.ts';
import { circuitOf, sessionOf } from '../../testing/circuits.ts';
import { modelNamed, MODELS } from './index.ts';

const currentOf = (circuit: ReturnType<typeof circuitOf>, ref: string) => {
  const model = sessionOf(circuit);
  return model.system.device(ref).report(model.operatingPoint()).current;
};
import { modelFromText } from './own-model.ts';

describe('models', () => {
  it('has a dozen transistors, six FETs, six diodes, eight amplifiers, four triodes, two pentodes and an electret', () => {
    const count = (kind: string) => MODELS.filter((m) => m.kind === kind).length;
    expect(['bjt', 'jfet', 'diode', 'opamp', 'triode', 'pentode', 'capsule'].map(count)).toEqual([
      12, 6, 6, 8, 4, 2, 1,
    ]);
    expect(count('led')).toBeGreaterThanOrEqual(4);
  });

  it('says of every model where it comes from, and names no kind without a device', () => {
    for (const model of MODELS) {
      expect(model.origin).toMatch(/from memory|Koren 1996/);
      expect(KINDS[model.kind].hasModel).toBe(true);
    }
    expect(new Set(MODELS.map((m) => `${m.kind} ${m.name.toLowerCase()}`)).size).toBe(MODELS.length);
  });

  it('is found in any case', () => {
    expect(modelNamed('bc547b', 'bjt')?.name).toBe('BC547B');
    expect(modelNamed('bc547b', 'diode')).toBeUndefined();
  });

  it('takes a model that the circuit brings along, before the library and after the part itself', () => {
    const lines = 'V1 9V vcc 0\nR1 1M vcc b\nQ1 XQ1 c b 0\nR2 100 vcc c';
    const circuit = circuitOf(lines);
    const own = {
      ...circuit,
      models: [{ name: 'xq1', kind: 'bjt' as const, params: { BF: 400, polarity: 'npn' } }],
    };
    const plain = currentOf(circuit, 'Q1');
    expect(currentOf(own, 'Q1') / plain).toBeCloseTo(4, 1);
    const parts = own.parts.map((p) => (p.kind === 'bjt' ? { ...p, params: { BF: 200 } } : p));
    expect(currentOf({ ...own, parts }, 'Q1') / plain).toBeCloseTo(2, 1);
  });

  it('reads a model of one’s own from a line, and says what is wrong with one', () => {
    const read = (line: string) => {
      const result = modelFromText(line);
      return result.ok ? result.model : result.problem.message;
    };
    expect(read('XQ1 bjt BF=420 IS=2e-14 pnp')).toEqual({
      name: 'XQ1',
      kind: 'bjt',
      params: { BF: 420, IS: 2e-14, polarity: 'pnp' },
    });
    expect(read('X1 npn BF=100')).toMatchObject({ kind: 'bjt', params: { polarity: 'npn', BF: 100 } });
    expect(read('XQ1')).toMatch(/begins with its name and its kind/);
    expect(read('XQ1 resistor R=1')).toMatch(/"resistor" has no models/);
    expect(read('XQ1 bjt BF')).toMatch(/"BF" is not a parameter/);
    expect(read('XQ1 bjt BF=many')).toMatch(/"many" is not a number for BF/);
    expect(read('XQ1 bjt')).toMatch(/no parameters yet/);
  });
});
