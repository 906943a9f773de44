import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { UnitDocument } from '../../circuit/circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { parseEntry } from './entry-line.ts';

const document: UnitDocument = {
  unit: {},
  circuit: circuitOf(
    'V1 9V vcc 0\nR7 47k vcc c\nQ2 2N3904 c b e\nR1 10k b 0\nC3 4u7 polarised c out\nR2 1k e 0\nR3 1k out 0',
  ),
  readouts: [
    { id: 'offset', name: 'Offset', kind: 'voltage', net: 'out' },
    { id: 'gain', name: 'Gain at 1 kHz', kind: 'gain', from: 'b', to: 'out', frequencyHz: 1000 },
  ],
  path: { blocks: [{ id: 'x' }], links: [], testPoints: [{ id: 'TP5', net: 'out' }] },
};
const read = (line: string) => {
  const result = parseEntry(line, document);
  return result.ok ? result.entry : result.problem.message;
};

describe('one field for everything', () => {
  it('takes readings of parts in any notation, with ESR and condition', () => {
    expect(read('R7 62k')).toEqual({ kind: 'part', ref: 'R7', value: 62_000 });
    expect(read('r7 62k in circuit')).toEqual({
      kind: 'part',
      ref: 'R7',
      value: 62_000,
      condition: 'in circuit',
    });
    expect(read('C3 3.9u esr 8')).toEqual({ kind: 'part', ref: 'C3', value: 3.9e-6, esr: 8 });
    expect(read('R7 shorted')).toEqual({ kind: 'part', ref: 'R7', value: 'short' });
    expect(read('Q2 be short')).toMatchObject({ aspect: 'b-e', value: 'short' });
    expect(read('C3 OL lifted')).toEqual({ kind: 'part', ref: 'C3', value: 'open', condition: 'leg lifted' });
    expect(read('R7 0')).toEqual({ kind: 'part', ref: 'R7', value: 'short' });
  });

  it('takes how a part was read, in any order, and a series resistance by itself', () => {
    expect(read('R7 62k red b as drawn in circuit')).toEqual({
      kind: 'part',
      ref: 'R7',
      value: 62_000,
      red: 'b',
      isAsDrawn: true,
      condition: 'in circuit',
    });
    expect(read('C3 esr 8')).toEqual({ kind: 'part', ref: 'C3', aspect: 'esr', value: 8 });
    expect(read('R7 62k red e')).toBe('R7 has no pin e for the red lead; it has a, b.');
  });

  it('takes voltages at pins, nets and points, what is heard, and readouts', () => {
    expect(read('Q2c 4.1V')).toEqual({ kind: 'voltage', at: 'c', net: 'c', value: 4.1, unit: 'V' });
    expect(read('vcc 8.9')).toEqual({ kind: 'voltage', at: 'vcc', net: 'vcc', value: 8.9, unit: 'V' });
    expect(read('TP5 hum')).toEqual({ kind: 'seen', at: 'TP5', saw: 'hum' });
    expect(read('TP5 12mV')).toEqual({ kind: 'voltage', at: 'TP5', net: 'out', value: 0.012, unit: 'V' });
    expect(read('offset 12mV')).toEqual({ kind: 'readout', id: 'offset', value: 0.012 });
    expect(read('Gain at 1 kHz 21.5')).toEqual({ kind: 'readout', id: 'gain', value: 21.5 });
  });

  it('tells a net from a part of the same name by how it is written', () => {
    const twice = { ...document, circuit: circuitOf('R1 1k c1 0\nC1 10u c1 0') };
    const entry = (line: string) => {
      const result = parseEntry(line, twice);
      return result.ok && result.entry;
    };
    expect(entry('c1 4.2')).toMatchObject({ kind: 'voltage', at: 'c1', value: 4.2 });
    expect(entry('C1 4.2')).toMatchObject({ kind: 'part', ref: 'C1' });
    expect(entry('c1 9.1uF')).toMatchObject({ kind: 'part', ref: 'C1' });
  });

  it('takes junctions, gains, leakage and levels by their word', () => {
    expect(read('Q2 be 0.65')).toEqual({ kind: 'part', ref: 'Q2', aspect: 'b-e', value: 0.65 });
    expect(read('Q2 b-e OL in circuit')).toEqual({
      kind: 'part',
      ref: 'Q2',
      aspect: 'b-e',
      value: 'open',
      condition: 'in circuit',
    });
    expect(read('q2 gain 210')).toEqual({ kind: 'part', ref: 'Q2', aspect: 'gain', value: 210 });
    expect(read('C3 leak 2uA')).toEqual({ kind: 'part', ref: 'C3', aspect: 'leakage', value: 2e-6 });
    expect(read('Q2 gain lots')).toContain('Q2 gain:');
    expect(read('out 240mV rms')).toEqual({
      kind: 'voltage',
      at: 'out',
      net: 'out',
      value: 0.24,
      unit: 'Vrms',
    });
    expect(read('TP5 level 1.2')).toMatchObject({ value: 1.2, unit: 'Vrms' });
    expect(read('vcc ripple 12mV')).toMatchObject({ at: 'vcc', value: 0.012, unit: 'Vpp' });
    expect(read('vcc 12mVpp')).toMatchObject({ value: 0.012, unit: 'Vpp' });
  });

  it('says what it cannot read, and what would do', () => {
    expect(read('X9 4k7')).toContain('"X9" is no part, pin, net, test point or readout');
    expect(read('R7')).toContain('the reading is missing');
    expect(read('R7 many')).toContain('R7:');
    expect(read('C3 4u esr')).toContain('the ESR is missing');
    expect(read('Q2 300')).toContain('type a pin, as Q2c 4.1V');
    expect(read('TP5 blue')).toContain('neither a voltage nor what is seen');
    expect(read('')).toContain('empty');
  });

  it('never throws, whatever is typed', () => {
    const words = fc.constantFrom(
      'R7',
      'C3',
      'Q2c',
      'TP5',
      '62k',
      'esr',
      'in',
      'circuit',
      '-',
      '4.1V',
      'hum',
      '∞',
      'offset',
      'Q2',
      'be',
      'gain',
      'rms',
      'ripple',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(words, { maxLength: 6 }).map((w) => w.join(' ')),
        ),
        (line) => {
          const result = parseEntry(line, document);
          if (!result.ok) expect(result.problem.message.length).toBeGreaterThan(5);
          else if (result.entry.kind === 'part' && typeof result.entry.value === 'number')
            expect(result.entry.value).toBeGreaterThan(0);
        },
      ),
      { numRuns: 500 },
    );
  });
});
