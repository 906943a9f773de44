import type { Change, Step } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { changed, randomSteps } from '../../testing/changes.ts';
import { randomCircuit, circuitOf } from '../../testing/circuits.ts';
import type { Circuit, LayerCircuit } from '../circuit/index.ts';
import { applyChange, applyStep, takeBack } from './apply.ts';
import { resolveLayer } from './layer.ts';

const planned = (steps: readonly Step[], id = 'c'): Change => ({
  id,
  name: id,
  purpose: 'modification',
  state: 'planned',
  steps,
});

/**
 * What a change makes of a circuit, computed another way: a table of pins, edited line by line. Values are kept as text.
 */
class Table {
  private readonly pins = new Map<string, string>();
  private readonly values = new Map<string, string>();
  constructor(circuit: Circuit) {
    for (const p of circuit.parts) this.put(p.ref, p.pins, p.marked);
  }
  private put(ref: string, pins: Readonly<Record<string, string>>, value: unknown) {
    for (const [pin, net] of Object.entries(pins)) this.pins.set(`${ref}.${pin}`, net);
    this.values.set(ref, String(value ?? 'none'));
  }
  edit(step: Step) {
    switch (step.do) {
      case 'fit':
        this.values.set(step.ref, String(step.value));
        return;
      case 'add':
        this.put(step.part.ref, step.part.pins, step.part.marked);
        return;
      case 'remove':
        this.values.delete(step.ref);
        for (const pin of [...this.pins.keys()]) if (pin.startsWith(`${step.ref}.`)) this.pins.delete(pin);
        return;
      case 'lift': {
        let own = step.pin;
        while ([...this.pins.values()].includes(own)) own += "'";
        this.pins.set(step.pin, own);
        return;
      }
      case 'cut':
        for (const pin of step.pins) this.pins.set(pin, step.as);
        return;
      case 'join': {
        const [from, to] = step.net === '0' ? [step.to, step.net] : [step.net, step.to];
        for (const [pin, net] of this.pins) if (net === from) this.pins.set(pin, to);
        return;
      }
      case 'move':
        this.pins.set(step.pin, step.to);
        return;
    }
  }
  /** Which pins hang together, and every value. */
  picture() {
    return pictureOf([...this.pins], [...this.values]);
  }
}

function pictureOf(
  pins: readonly (readonly [string, string])[],
  values: readonly (readonly [string, string])[],
) {
  const nets = new Map<string, string[]>();
  for (const [pin, net] of pins) nets.set(net, [...(nets.get(net) ?? []), pin]);
  return {
    nets: [...nets.values()].map((n) => n.sort().join(' ')).sort(),
    values: values.map((v) => v.join('=')).sort(),
  };
}
const pictureOfCircuit = (circuit: Pick<LayerCircuit, 'parts'>) =>
  pictureOf(
    circuit.parts.flatMap((p) =>
      Object.entries(p.pins).map(([pin, net]) => [`${p.ref}.${pin}`, net] as const),
    ),
    circuit.parts.map((p) => [p.ref, String(p.value ?? 'none')] as const),
  );

describe('a change', () => {
  const seeds = Array.from({ length: 500 }, (_, i) => i + 1);
  const made = (seed: number) => {
    const circuit = randomCircuit(seed, 2);
    return { circuit, steps: randomSteps(circuit, seed) };
  };

  it('makes of 500 random circuits what editing them line by line makes of them', () => {
    const kinds = new Set<string>();
    for (const seed of seeds) {
      const { circuit, steps } = made(seed);
      const table = new Table(circuit);
      for (const step of steps) {
        kinds.add(step.do);
        table.edit(step);
      }
      const layer = resolveLayer(
        { ...circuit, changes: steps.length > 0 ? [planned(steps)] : [] },
        'planned',
      );
      expect(pictureOfCircuit(layer), `seed ${seed}`).toEqual(table.picture());
    }
    expect([...kinds].sort()).toEqual(['add', 'cut', 'fit', 'join', 'lift', 'move', 'remove']);
  });

  it('taken back step by step, the last first, leaves the circuit that there was', () => {
    for (const seed of seeds) {
      const { circuit, steps } = made(seed);
      const start = changed(circuit);
      const inverses: Parameters<typeof takeBack>[1][] = [];
      let now = start;
      for (const step of steps) {
        const outcome = applyStep(now, step);
        if (!outcome.ok) throw new Error(outcome.problem.message);
        inverses.unshift(outcome.inverse);
        now = outcome.circuit;
      }
      for (const inverse of inverses) now = takeBack(now, inverse);
      expect(now, `seed ${seed}`).toEqual(start);
    }
  });

  it('that touches other parts and nets than another gives the same in either order', () => {
    const circuit = circuitOf(
      'V1 9V vcc 0\nR1 1k vcc a\nR2 1k a b\nR3 1k b 0\nC1 1u a 0\nC2 1u b d\nR4 1k d 0',
    );
    const parts: Change[] = [
      planned([{ do: 'fit', ref: 'R1', value: 820 }], '1'),
      planned([{ do: 'lift', pin: 'C1.a' }], '2'),
      planned(
        [{ do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'b', b: '0' }, marked: 1e4 } }],
        '3',
      ),
      planned([{ do: 'cut', net: 'd', pins: ['R4.a'], as: 'd2' }], '4'),
    ];
    const picture = (changes: readonly Change[]) =>
      pictureOfCircuit(resolveLayer({ ...circuit, changes }, 'planned'));
    const first = picture(parts);
    for (const order of [
      [1, 0, 3, 2],
      [3, 2, 1, 0],
      [2, 3, 0, 1],
    ])
      expect(picture(order.map((i) => parts[i]!))).toEqual(first);
  });
});

describe('a change that cannot be made', () => {
  const circuit = circuitOf('V1 9V vcc 0\nR1 1k vcc a\nR2 1k a b\nR3 1k b 0');
  const refused = (...steps: Step[]) => {
    const outcome = applyChange(changed(circuit), { steps });
    return outcome.ok ? 'made' : outcome.problem.message;
  };

  it('says why in a sentence', () => {
    const resistor = { kind: 'resistor', marked: 1 } as const;
    expect(refused()).toBe('The change has no steps.');
    expect(refused({ do: 'fit', ref: 'R7', value: 5 })).toBe('There is no R7 in the circuit.');
    expect(refused({ do: 'remove', ref: 'R7' })).toBe('There is no R7 in the circuit.');
    expect(refused({ do: 'add', part: { ...resistor, ref: 'R1', pins: { a: 'a', b: '0' } } })).toBe(
      'R1 is in the circuit already.',
    );
    expect(refused({ do: 'add', part: { ...resistor, ref: 'R9', pins: { a: 'a' } } })).toBe(
      'R9: pin b is not connected.',
    );
    expect(refused({ do: 'lift', pin: 'R1.c' })).toBe('R1 has no pin "c"; its pins are a, b.');
    expect(refused({ do: 'lift', pin: 'R1' })).toBe('There is no R1 in the circuit.');
    expect(refused({ do: 'cut', net: 'x', pins: ['R1.a'], as: 'y' })).toBe('No part touches net x.');
    expect(refused({ do: 'cut', net: 'a', pins: ['R1.b', 'R2.a'], as: 'y' })).toBe(
      'The cut names every pin of net a, so that nothing is cut.',
    );
    expect(refused({ do: 'cut', net: 'a', pins: ['R1.b', 'R1.b'], as: 'y' })).toBe('R1.b is named twice.');
    expect(refused({ do: 'cut', net: 'a', pins: ['R3.a'], as: 'y' })).toBe('R3.a is not on net a but on b.');
    expect(refused({ do: 'cut', net: 'a', pins: ['R1.b'], as: 'b' })).toBe('There is a net b already.');
    expect(refused({ do: 'join', net: 'a', to: 'a' })).toBe('a and a are one net already.');
    expect(refused({ do: 'join', net: 'a', to: 'q' })).toBe('No part touches net q.');
    expect(refused({ do: 'move', pin: 'R1.b', to: 'a' })).toBe('R1.b is on net a already.');
  });

  it('is not made at all, and the others are', () => {
    const changes = [
      planned(
        [
          { do: 'fit', ref: 'R1', value: 5 },
          { do: 'remove', ref: 'R7' },
        ],
        'broken',
      ),
      planned([{ do: 'fit', ref: 'R2', value: 7 }], 'sound'),
    ];
    const { parts } = resolveLayer({ ...circuit, changes }, 'planned');
    expect(parts.map((p) => p.value)).toEqual([9, 1000, 7, 1000]);
  });
});

describe('nets that a wire joins', () => {
  const circuit = circuitOf('V1 9V vcc 0\nR1 1k vcc a\nR2 1k b c\nR3 1k c 0');
  const join = (net: string, to: string) => ({ do: 'join', net, to }) as const;

  it('answer to both names, whichever was joined to which, the ground to its own', () => {
    const { renamed } = resolveLayer(
      { ...circuit, changes: [planned([join('a', 'b'), join('b', 'c')])] },
      'planned',
    );
    expect([...renamed!]).toEqual([
      ['a', 'c'],
      ['b', 'c'],
    ]);
    const grounded = resolveLayer({ ...circuit, changes: [planned([join('0', 'b')])] }, 'planned');
    expect([...grounded.renamed!]).toEqual([['b', '0']]);
  });

  it('take later steps that still speak of the old name', () => {
    const steps: Step[] = [
      join('a', 'b'),
      { do: 'move', pin: 'R3.a', to: 'a' },
      { do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: 5 } },
    ];
    const { parts } = resolveLayer({ ...circuit, changes: [planned(steps)] }, 'planned');
    expect(parts.map((p) => p.pins)).toMatchObject([
      {},
      { b: 'b' },
      { a: 'b', b: 'c' },
      { a: 'b' },
      { a: 'b' },
    ]);
  });
});
