import { LAYERS, type Layer } from '@halfsplit/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../testing/circuits.ts';
import { hasOwnValues, resolveLayer, valueOnLayer, withValues } from './layer.ts';
import type { Part } from './part.ts';

const VALUES = [undefined, null, 100, 220, 'open', 'short'] as const;
const layered = fc
  .tuple(...LAYERS.map(() => fc.constantFrom(...VALUES)))
  .map(([marked, found, planned, proven]): Part => ({
    ref: 'R1',
    kind: 'resistor',
    pins: { a: 'x', b: '0' },
    ...(marked === undefined ? {} : { marked }),
    ...(found === undefined ? {} : { found }),
    ...(planned === undefined ? {} : { planned }),
    ...(proven === undefined ? {} : { proven }),
  }));

describe('the value on a layer', () => {
  it('is the layer’s own, or that of the nearest layer before it that says something', () => {
    fc.assert(
      fc.property(layered, fc.constantFrom<Layer>(...LAYERS), (part, layer) => {
        const said = [part.marked, part.found, part.planned, part.proven];
        const upTo = said.slice(0, LAYERS.indexOf(layer) + 1);
        const nearest = upTo.findLastIndex((v) => v !== undefined && v !== null);
        expect(valueOnLayer(part, layer)).toEqual(
          nearest < 0 ? null : { layer: LAYERS[nearest], value: upTo[nearest] },
        );
        const [resolved] = resolveLayer({ ground: '0', parts: [part] }, layer).parts;
        expect(resolved!.value).toBe(nearest < 0 ? null : upTo[nearest]);
        // Nothing of another layer can be seen any more.
        for (const name of LAYERS) expect(resolved).not.toHaveProperty(name);
      }),
    );
  });

  it('of a circuit that says nothing of its own on a layer is that of the layer before', () => {
    const circuit = circuitOf('V1 9V vcc 0\nR1 1k vcc a\nR2 1k a 0');
    expect(hasOwnValues(circuit, 'marked')).toBe(true);
    expect(hasOwnValues(circuit, 'found')).toBe(false);
    const drifted = withValues(circuit, 'found', new Map([['R1', 1200]]));
    expect(hasOwnValues(drifted, 'found')).toBe(true);
    expect(resolveLayer(drifted, 'planned').parts.map((p) => p.value)).toEqual([9, 1200, 1000]);
    expect(resolveLayer(drifted, 'marked')).toEqual(resolveLayer(circuit, 'marked'));
    // What was there is left as it was.
    expect(hasOwnValues(circuit, 'found')).toBe(false);
    expect(resolveLayer(withValues(drifted, 'found', new Map([['R1', null]])), 'found').parts[1]!.value).toBe(
      1000,
    );
  });
});

describe('what was measured beside the value', () => {
  const capacitor: Part = {
    ref: 'C1',
    kind: 'capacitor',
    pins: { a: 'x', b: '0' },
    marked: 1e-6,
    esr: 0.1,
    foundParams: { esr: 5 },
  };
  const transistor: Part = {
    ref: 'Q1',
    kind: 'bjt',
    pins: { c: 'c', b: 'b', e: '0' },
    params: { VAF: 50 },
    foundParams: { BF: 90 },
  };
  const on = (part: Part, layer: Layer) => resolveLayer({ ground: '0', parts: [part] }, layer).parts[0]!;

  it('holds from the found layer on, until another part is planned or fitted', () => {
    expect(LAYERS.map((layer) => on(capacitor, layer))).toMatchObject([
      { esr: 0.1 },
      { esr: 5 },
      { esr: 5 },
      { esr: 5 },
    ]);
    const replaced = { ...capacitor, planned: 2.2e-6 };
    expect([on(replaced, 'found'), on(replaced, 'planned'), on(replaced, 'proven')]).toMatchObject([
      { esr: 5 },
      { esr: 0.1 },
      { esr: 0.1 },
    ]);
    expect(on(transistor, 'found')).toMatchObject({ params: { VAF: 50, BF: 90 } });
    expect(on(transistor, 'marked')).toMatchObject({ params: { VAF: 50 } });
    expect('foundParams' in on(transistor, 'found')).toBe(false);
  });

  it('makes the found layer one of its own', () => {
    expect(hasOwnValues({ ground: '0', parts: [capacitor] }, 'found')).toBe(true);
    expect(hasOwnValues({ ground: '0', parts: [capacitor] }, 'planned')).toBe(false);
  });
});
