import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { parseChangeLine } from './change-line.ts';

const circuit = circuitOf(`
  V1 9V vcc 0
  R1 1k vcc n3
  R4 1k n3 n4
  C2 1u n3 0
  C7 1u n4 out
  R12 10k out 0
  Q2 2N3904 c=vcc b=n4 e=e
  R5 1k e 0
`);
const steps = (line: string) => {
  const read = parseChangeLine(line, circuit);
  if (!read.ok) throw new Error(read.problem.message);
  return read.steps;
};
const words = (line: string) => {
  const read = parseChangeLine(line, circuit);
  return read.ok ? read.words : read.problem.message;
};

describe('a change in words', () => {
  it('fits another value or type, with what is said of it', () => {
    expect(steps('R4 -> 820')).toEqual([{ do: 'fit', ref: 'R4', value: 820 }]);
    expect(steps('R4->4k7')).toEqual([{ do: 'fit', ref: 'R4', value: 4700 }]);
    expect(steps('C7 → 470u 25V polarised')).toEqual([
      { do: 'fit', ref: 'C7', value: 470e-6, part: { voltage: 25, polarised: true } },
    ]);
    expect(steps('Q2 -> 2N5088')).toEqual([{ do: 'fit', ref: 'Q2', part: { model: '2N5088' } }]);
  });

  it('puts a part across another, and asks at which end one comes in series', () => {
    expect(steps('+R9 1k across C2')).toEqual([
      { do: 'add', part: { ref: 'R9', kind: 'resistor', marked: 1000, pins: { a: 'n3', b: '0' } } },
    ]);
    expect(steps('+R9 1k across C2 via SW9')[0]).toMatchObject({ part: { pins: { a: 'x1', b: '0' } } });
    expect(words('+R9 1k across Q2')).toContain('name the two nets');
    expect(words('+R9 1k across C99')).toBe('There is no C99 in the circuit.');
    expect(words('+R9 1k in series with C7')).toContain('At which end of C7: C7.a (at n4) or C7.b (at out)?');
    // A designator is no value, and 0.2 ohm is written 0R2.
    expect(words('R1 -> R4')).toContain('R4 is a part of this unit and no value');
    expect(steps('+R9 1k out gnd')[0]).toMatchObject({ part: { pins: { b: '0' } } });
  });

  it('adds a part, alone, through a switch, or in a leg', () => {
    const part = { ref: 'C30', kind: 'capacitor', marked: 470e-9 };
    expect(steps('+C30 470n n3 n4')).toEqual([{ do: 'add', part: { ...part, pins: { a: 'n3', b: 'n4' } } }]);
    expect(steps('+C30 470n n3 n4 via SW9')).toEqual([
      { do: 'add', part: { ...part, pins: { a: 'x1', b: 'n4' } } },
      { do: 'add', part: { ref: 'SW9', kind: 'switch', pins: { a: 'n3', b: 'x1' }, closed: true } },
    ]);
    expect(steps('+R9 1k in series with C7.a')).toEqual([
      { do: 'move', pin: 'C7.a', to: 'x1' },
      { do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'n4', b: 'x1' }, marked: 1000 } },
    ]);
  });

  it('takes out, lifts, cuts, wires, moves and crosses', () => {
    expect(steps('-R4')).toEqual([{ do: 'remove', ref: 'R4' }]);
    expect(steps('lift C7.a')).toEqual([{ do: 'lift', pin: 'C7.a' }]);
    expect(steps('cut n3 at R4.a')).toEqual([{ do: 'cut', net: 'n3', pins: ['R4.a'], as: 'n3b' }]);
    expect(steps('cut n3 at R4.a, C2.a as far')).toEqual([
      { do: 'cut', net: 'n3', pins: ['R4.a', 'C2.a'], as: 'far' },
    ]);
    expect(steps('wire n3 to n4')).toEqual([{ do: 'join', net: 'n3', to: 'n4' }]);
    expect(steps('R12.b to e')).toEqual([{ do: 'move', pin: 'R12.b', to: 'e' }]);
    expect(steps('swap R1.b R12.a')).toEqual([
      { do: 'move', pin: 'R1.b', to: 'out' },
      { do: 'move', pin: 'R12.a', to: 'n3' },
    ]);
  });

  it('takes several, each on top of those before it', () => {
    const both = steps('-R4; +R4 2k2 n3 n4; R4 -> 3k3');
    expect(both).toHaveLength(3);
    const change = { id: 'c', name: 'c', purpose: 'repair', state: 'planned', steps: both } as const;
    const { parts } = resolveLayer({ ...circuit, changes: [change] }, 'planned');
    expect(parts.find((p) => p.ref === 'R4')?.value).toBe(3300);
    expect(words('R4 -> 820; lift C7.a')).toBe('R4: 820 instead of 1k; C7.a lifted');
  });

  it('says what it cannot read or make', () => {
    expect(words('')).toBe('There is no change to read.');
    expect(words('make it louder')).toBe('"make it louder" is no change that can be read.');
    expect(words('R77 -> 5k')).toBe('There is no R77 in the circuit.');
    expect(words('R4 -> lots')).toContain('R4');
    expect(words('+R4 1k a b')).toBe('R4 is in the circuit already.');
    expect(words('swap R1.a R9.a')).toBe('There is no R9 in the circuit.');
    expect(words('swap R1.b R4.a')).toBe('R1.b and R4.a are on the same net, n3.');
    expect(words('cut n3 at R1.b R4.a C2.a')).toContain('names every pin');
    expect(words('+C30 470n')).toContain('C30');
    expect(words('lift R4.__proto__')).toBe('R4 has no pin "__proto__"; its pins are a, b.');
    expect(words('swap R4.constructor R1.a')).toBe('R4 has no pin "constructor"; its pins are a, b.');
    expect(words('+C30 1n n3 n4 via __proto__')).toContain('is not a designator');
    expect(words('lift __proto__.a')).toBe('There is no __proto__ in the circuit.');
  });
});
