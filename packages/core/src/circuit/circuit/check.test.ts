import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { checkReadouts } from '../../analysis/readouts/index.ts';
import { checkCircuit } from './check.ts';
import type { Circuit } from './part.ts';

const codes = (circuit: Circuit) => checkCircuit(circuit).map((p) => p.code);

describe('checkCircuit', () => {
  it('finds nothing in a working circuit', () => {
    expect(codes(circuitOf('V1 9V vcc 0\nR1 1k vcc a\nR2 1k a 0'))).toEqual([]);
  });

  it('names the parts that touch a net without a DC path to ground', () => {
    const problems = checkCircuit(circuitOf('G1 1V in 0\nC1 1u in b\nC2 1u b 0'));
    expect(problems).toHaveLength(1);
    expect(problems[0]).toMatchObject({
      code: 'circuit/no-dc-path',
      net: 'b',
      message: 'Net b has no DC path to ground: only C1 and C2 touch it.',
    });
  });

  it('names a package that is none, and an order of pins that names none of the part', () => {
    const said = (words: string) =>
      checkCircuit(
        circuitOf(`V1 9V vcc 0\nR1 1k vcc b\nR2 1k b 0\nQ1 2N3904 ${words} vcc b e\nR3 1k e 0`),
      ).map((p) => p.message);
    expect(said('package=TO-92 pinout=C-B-E')).toEqual([]);
    expect(said('package=to92 pinout=e-b-c')).toEqual([]);
    expect(said('package=DIP-99')).toEqual([
      'Q1: its package "DIP-99" is none that is known, as DIP-8, TO-92 or B9A.',
    ]);
    expect(said('pinout=G-D-S')).toEqual(['Q1: its order of pins names G, D, S; its pins are c, b, e.']);
  });

  it('takes a leaky capacitor, a junction and an amplifier output for a DC path', () => {
    expect(codes(circuitOf('G1 1V in 0\nC1 1u in b leakage=1M\nC2 1u b 0'))).toEqual([]);
    expect(codes(circuitOf('G1 1V in 0\nC1 1u in b\nD1 1N4148 b 0'))).toEqual([]);
    expect(
      codes(
        circuitOf(
          'V1 9V vcc 0\nU1 TL072 plus=m minus=o out=o vplus=vcc vminus=0\nR1 1k o 0\nR2 1k vcc m\nR3 1k m 0',
        ),
      ),
    ).toEqual([]);
  });

  it('finds a gate that only a capacitor reaches, and a source behind an open switch', () => {
    const jfet = circuitOf('V1 9V vcc 0\nG1 1V in 0\nC1 1n in g\nJF1 jfet d=vcc g=g s=s\nR1 1k s 0');
    expect(checkCircuit(jfet)[0]).toMatchObject({ code: 'circuit/no-dc-path', net: 'g' });
    expect(codes(circuitOf('R1 1k a 0\nS1 open a b\nV1 9V b c\nR2 1k b c'))).toEqual(['circuit/no-dc-path']);
    // What a switch has taken out of the circuit is no fault: it rests behind its insulation.
    expect(codes(circuitOf('V1 9V vcc 0\nR1 1k vcc 0\nS1 open vcc a\nC1 1u a 0'))).toEqual([]);
  });

  it('finds open pins, unknown pins, single nets, missing values and double designators', () => {
    const circuit: Circuit = {
      ground: '0',
      parts: [
        { ref: 'R1', kind: 'resistor', pins: { a: 'x' }, marked: 1000 },
        { ref: 'R1', kind: 'resistor', pins: { a: 'x', b: '0', q: '0' }, marked: 1000 },
        { ref: 'R2', kind: 'resistor', pins: { a: 'lonely', b: '0' } },
        { ref: 'R3', kind: 'resistor', pins: { a: 'x', b: '0' }, marked: -5 },
      ],
    };
    expect(codes(circuit)).toEqual([
      'circuit/pin-open',
      'circuit/unknown-pin',
      'circuit/no-value',
      'circuit/bad-value',
      'circuit/duplicate-ref',
      'circuit/net-single',
    ]);
    expect(checkCircuit(circuit).find((p) => p.code === 'circuit/net-single')).toMatchObject({
      net: 'lonely',
      ref: 'R2',
    });
  });

  it('finds two ideal sources in parallel', () => {
    expect(codes(circuitOf('V1 9V vcc 0\nV2 9V vcc 0\nR1 1k vcc 0'))).toEqual(['circuit/source-loop']);
    expect(codes(circuitOf('V1 9V vcc 0\nV2 9V vcc 0 resistance=1\nR1 1k vcc 0'))).toEqual([]);
  });

  it('finds a readout that names a net or part which is not there', () => {
    const circuit = circuitOf('V1 9V vcc 0\nR1 1k vcc 0');
    const readouts = [
      { id: 'a', name: 'gain', kind: 'gain' as const, from: 'vcc', to: 'nowhere', frequencyHz: 1000 },
      { id: 'b', name: 'heat', kind: 'dissipation' as const, part: 'R9' },
    ];
    expect(checkReadouts(circuit, readouts)).toMatchObject([
      { code: 'circuit/unknown-net', net: 'nowhere' },
      { code: 'circuit/unknown-part', ref: 'R9' },
    ]);
  });

  it('says that nothing touches the ground', () => {
    expect(codes(circuitOf('R1 1k a b\nR2 1k a b'))).toContain('circuit/no-ground');
    expect(codes({ ground: '0', parts: [] })).toEqual([]);
  });
});
