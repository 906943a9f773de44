import { describe, expect, it } from 'vitest';
import type { Circuit, Part } from '../../circuit/circuit/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import {
  ageingWords,
  aspectsOf,
  aspectText,
  bareAspect,
  foundValue,
  judgeAspect,
  judgeReading,
  technologyOf,
} from './index.ts';

const circuit = circuitOf(
  [
    'D1 1N4148 a 0',
    'Q1 2N3904 c b e',
    'Q2 2N3906 c2 b2 e2',
    'R1 47 b e',
    'C1 100u 25V polarised a 0',
    'C2 100n film a 0',
    'P1 50k 1=a 2=w 3=0',
    'P2 50k log 1=a 2=w2 3=0',
    'F1 fuse a vcc',
    'SW1 switch a b',
    'LS1 speaker 8 a 0',
    'L1 1m dcr=2 a 0',
    'R2 1M carbon a 0',
  ].join('\n'),
);
const part = (ref: string, of: Circuit = circuit): Part => of.parts.find((p) => p.ref === ref)!;
const judge = (
  ref: string,
  aspect: string,
  value: number | 'open' | 'short',
  condition: 'in circuit' | 'leg lifted' = 'leg lifted',
) => judgeAspect(circuit, part(ref), aspect, { value, condition });

/** Shockley's diode equation solved for the voltage at 1 mA (1949; any textbook), at 300.15 K. */
const forward = (is: number, n: number, rs = 0) => n * 0.0258649 * Math.log(1e-3 / is + 1) + rs * 1e-3;

describe('junctions', () => {
  it('show what the equation of the type gives at the test current', () => {
    const expected = forward(2.52e-9, 1.752, 0.568);
    expect(judge('D1', 'a-k', expected)).toMatchObject({ kind: 'in' });
    expect(judge('D1', 'a-k', expected).deviation).toBeCloseTo(0, 3);
    expect(judge('D1', 'a-k', expected + 0.2).kind).toBe('high');
    expect(judge('D1', 'a-k', 0.3).kind).toBe('low');
    expect(judge('D1', 'a-k', 0.01).kind).toBe('short');
    expect(judge('D1', 'a-k', 'open').kind).toBe('open');
    expect(judge('D1', 'k-a', 'open')).toMatchObject({
      kind: 'in',
      sentence: expect.stringContaining('blocks'),
    });
    expect(judge('D1', 'k-a', 1.2).kind).toBe('low');
  });

  it('conduct one way in an NPN and the other way in a PNP', () => {
    expect(judge('Q1', 'b-e', 0.67).kind).toBe('in');
    expect(judge('Q1', 'b-c', 0.66).kind).toBe('in');
    expect(judge('Q1', 'e-b', 'open').kind).toBe('in');
    expect(judge('Q1', 'c-e', 'open').kind).toBe('in');
    expect(judge('Q2', 'e-b', 0.7).kind).toBe('in');
    expect(judge('Q2', 'b-e', 'open').kind).toBe('in');
  });

  it('are judged with what lies beside them when they are in circuit', () => {
    // 47 ohm across the junction takes the whole milliampere: 47 mV, and would without the transistor.
    expect(judge('Q1', 'b-e', 0.047, 'in circuit')).toMatchObject({
      kind: 'cannot say',
      sentence: expect.stringContaining('would show that without it'),
    });
    expect(judge('Q1', 'b-e', 0.67, 'in circuit').kind).toBe('high');
    expect(judge('Q1', 'b-c', 'short', 'in circuit').kind).toBe('cannot say');
  });
});

describe('the rest of what a meter reads', () => {
  it('gain against the type', () => {
    expect(judge('Q1', 'gain', 250).kind).toBe('in');
    expect(judge('Q1', 'gain', 40)).toMatchObject({
      kind: 'low',
      sentence: expect.stringContaining('typical 300'),
    });
    expect(judge('Q1', 'gain', 900).kind).toBe('edge');
    expect(judge('Q1', 'gain', 250, 'in circuit').kind).toBe('cannot say');
    const own = { ...circuit, models: [{ name: 'VALE1', kind: 'bjt' as const, params: { BF: 80 } }] };
    expect(
      judgeAspect(own, { ...part('Q1'), model: 'VALE1' }, 'gain', { value: 75, condition: 'leg lifted' })
        .sentence,
    ).toContain('typical 80');
  });

  it('of a type whose pins come in several orders says where another order would make it right', () => {
    const fet = circuitOf(
      'JF1 J201 d g s\nR1 1k d 0\nR2 1k s 0\nR3 1M g 0\nQ1 2N3904 c b e\nR4 1k c 0\nR5 1k e 0\nR6 1k b 0',
    );
    const of = (ref: string, aspect: string, value: number | 'open', pinout?: string) => {
      const own = fet.parts.find((p) => p.ref === ref)!;
      const told = pinout === undefined ? own : ({ ...own, pinout } as typeof own);
      return judgeAspect(fet, told, aspect, { value, condition: 'leg lifted' });
    };
    // Legs 3 and 2 are gate and source of D-S-G, and source and gate of D-G-S: the junction the other way round.
    expect(of('JF1', 'g-s', 0.7).kind).toBe('in');
    expect(of('JF1', 'g-s', 'open').sentence).toContain('as S-G-D or D-G-S it would be right');
    expect(of('JF1', 'g-s', 'open', 'D-S-G').sentence).not.toContain('would be right');
    // A few per cent of the usual gain is what is left the wrong way round (textbook).
    expect(of('Q1', 'gain', 4).sentence).toContain('collector and emitter changed over');
    expect(of('Q1', 'gain', 4, 'E-B-C').sentence).toContain('worn or of another type');
    expect(of('Q1', 'gain', 60).sentence).toContain('worn or of another type');
  });

  it('leakage against 0.01 CV or 3 uA for electrolytics (usual data sheets), none for films', () => {
    // 100 uF at 25 V: 25 uA.
    expect([5e-6, 20e-6, 60e-6].map((v) => judge('C1', 'leakage', v).kind)).toEqual(['in', 'edge', 'high']);
    expect(judge('C2', 'leakage', 1e-6).kind).toBe('high');
    expect(judge('C2', 'leakage', 'open').kind).toBe('in');
  });

  it('contacts, coils, and the travel of a potentiometer (common practice; a log track has 10 % at half)', () => {
    expect([0.05, 0.5, 4].map((v) => judge('SW1', 'contact', v).kind)).toEqual(['in', 'edge', 'high']);
    expect(judge('F1', 'contact', 'open').kind).toBe('open');
    expect([6.4, 'open', 1].map((v) => judge('LS1', 'winding', v as number).kind)).toEqual([
      'in',
      'open',
      'short',
    ]);
    expect([2.1, 0.5, 9].map((v) => judge('L1', 'winding', v).kind)).toEqual(['in', 'low', 'high']);
    expect(judge('P1', 'middle', 24e3).sentence).toBe('48 % at half travel: linear');
    expect(judge('P1', 'middle', 6e3).sentence).toContain('its law is log, not linear');
    expect(judge('P2', 'middle', 5e3).kind).toBe('in');
    expect([10, 600, 3000].map((v) => judge('P1', 'end', v).kind)).toEqual(['in', 'edge', 'high']);
    expect(judge('P1', 'track', 'open').sentence).toContain('clean it');
    expect(aspectText(part('P1'), 'track', 'open')).toBe('crackles');
  });

  it('never becomes the found value, but for a fuse or jumper that does not conduct', () => {
    const reading = (aspect: string, value: number | 'open') => ({
      value,
      condition: 'leg lifted' as const,
      aspect,
    });
    expect(foundValue(part('P1'), [reading('middle', 24e3)])).toBeNull();
    expect(foundValue(part('F1'), [reading('contact', 'open')])).toBe('open');
    expect(foundValue(part('F1'), [reading('contact', 'open'), reading('contact', 0.1)])).toBeNull();
    expect(foundValue(part('SW1'), [reading('contact', 'open')])).toBeNull();
  });

  it('has a sentence for everything it offers, and takes no other word', () => {
    for (const p of circuit.parts)
      for (const a of aspectsOf(p))
        for (const value of [1e-6, 0.6, 100, 'open', 'short'] as const)
          expect(judge(p.ref, a.id, value).sentence.length, `${p.ref} ${a.id}`).toBeGreaterThan(5);
    expect(judge('R1', 'gain', 3).kind).toBe('cannot say');
    expect(bareAspect({ kind: 'resistor' })).toBeNull();
  });
});

describe('technology and age (common practice)', () => {
  it('is named where a deviation goes the way it usually goes', () => {
    const read = (value: number) => judgeReading(part('R2'), { value, condition: 'leg lifted' }).sentence;
    expect(read(1.3e6)).toBe('reads 30 % above 1M, as carbon composition does with age');
    expect(read(0.7e6)).toBe('reads 30 % below 1M');
    expect(technologyOf(part('C1'))).toBe('electrolytic');
    expect(ageingWords(part('C1'))).toContain('ESR rises');
    expect(ageingWords(part('R1'))).toBeUndefined();
  });
});
