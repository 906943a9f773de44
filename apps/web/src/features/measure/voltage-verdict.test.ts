import type { Readout } from '@zemble/contract';
import { parseSheetLine, type Part, type UnitDocument } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { tellReadout, tellSeen, tellVoltage, type Computed } from './voltage-verdict.ts';

const parts = ['V1 12V vcc 0', 'C1 1000u 25V electrolytic vcc 0', 'R1 10k vcc a', 'LS1 speaker 8 out 0'].map(
  (line): Part => {
    const read = parseSheetLine(line);
    if (!read.ok) throw new Error(read.problem.message);
    return read.part;
  },
);
const document: UnitDocument = { unit: {}, circuit: { ground: '0', parts }, readouts: [] };
const analysis: Computed = {
  shown: new Map(Object.entries({ vcc: 12, a: 6, out: 0 })),
  supplies: { V1: 0.1 },
  mainsHz: 50,
};
const volt = (net: string, value: number, unit: 'V' | 'Vrms' | 'Vpp' = 'V') =>
  tellVoltage({ kind: 'voltage', at: net, net, value, unit }, document, analysis);

describe('what is said of an entry', () => {
  it('compares a voltage with the computed one', () => {
    expect(volt('a', 6.1)).toMatchObject({ tone: 'in' });
    expect(volt('a', 3)).toEqual({ tone: 'out', sentence: 'a: 3 V, 3 V below the computed 6 V' });
    expect(
      tellVoltage({ kind: 'voltage', at: 'x', net: null, value: 3, unit: 'V' }, document, analysis),
    ).toEqual({
      tone: null,
      sentence: 'x: 3 V.',
    });
  });

  it('takes a direct voltage at a speaker for an offset (common practice: below 50 mV)', () => {
    expect(volt('out', 0.03).tone).toBe('edge');
    expect(volt('out', 0.4).sentence).toContain('connect no speaker');
  });

  it('judges ripple with the reservoir and the current the supply gives: 0.1 A and 1000 uF at 50 Hz make 1 V', () => {
    expect(volt('vcc', 0.05, 'Vpp').tone).toBe('in');
    expect(volt('vcc', 0.8, 'Vpp').sentence).toContain(
      '1 V would be usual at a reservoir of 1000 µF on 50 Hz mains',
    );
    // I/(2 f C), textbook: 0.1 A / (120 Hz x 1000 µF).
    const on60 = tellVoltage({ kind: 'voltage', at: 'vcc', net: 'vcc', value: 0.8, unit: 'Vpp' }, document, {
      ...analysis,
      mainsHz: 60,
    });
    expect(on60.sentence).toContain('830 mV would be usual at a reservoir of 1000 µF on 60 Hz mains');
    expect(volt('vcc', 2.5, 'Vpp').tone).toBe('out');
    expect(volt('a', 0.2, 'Vrms')).toEqual({ tone: null, sentence: 'a: 200 mV rms of tone.' });
  });

  it('says what is seen, what goes to the bench column, and what an ESR means', () => {
    expect(tellSeen(document, { kind: 'seen', at: 'a', saw: 'hum' }).sentence).toContain('there is hum');
    const gain: Readout = {
      id: 'g',
      name: 'Offset gain',
      kind: 'gain',
      from: 'a',
      to: 'out',
      frequencyHz: 1000,
    };
    expect(tellReadout(gain, 20, document, analysis)).toEqual({
      tone: null,
      sentence: 'Offset gain: taken for the bench column.',
    });
    const rest: Readout = { id: 'r', name: 'Rest, left', kind: 'voltage', net: 'out' };
    expect(tellReadout(rest, 0.3, document, analysis).sentence).toContain('connect no speaker');
    expect(tellReadout({ ...rest, net: 'a' }, 6.1, document, analysis).tone).toBe('in');
  });

  it('takes a tone’s peak to peak for no ripple, and half the supply at an output for no offset', () => {
    const tone = tellVoltage(
      { kind: 'voltage', at: 'a', net: 'a', value: 4, unit: 'Vpp' },
      document,
      analysis,
    );
    expect(tone).toEqual({ tone: null, sentence: 'a: 4 V peak to peak.' });
    const half = { ...analysis, shown: new Map([...analysis.shown, ['out', 6]]) };
    const at = (value: number, of: Computed) =>
      tellVoltage({ kind: 'voltage', at: 'out', net: 'out', value, unit: 'V' }, document, of);
    expect(at(6.02, half).tone).toBe('in');
    expect(at(6.02, half).sentence).not.toContain('speaker');
    expect(at(0.2, analysis).sentence).toContain('connect no speaker');
  });
});
