import { describe, expect, it } from 'vitest';
import { markedCircuitOf } from '../../testing/circuits.ts';
import { judgeRipple, judgeVoltage, reservoirAt, restingCurrents, supplyVerdicts } from './index.ts';

const circuit = markedCircuitOf(
  [
    'V1 12V vcc 0',
    'C1 1000u polarised vcc 0',
    'C2 100n vcc 0',
    'R1 2k2 vcc c',
    'Q1 2N3904 c b e',
    'R2 470 e 0',
    'U1 TL072 plus=b minus=o out=o vplus=vcc vminus=0',
    'U2 MADEUP plus=b minus=o2 out=o2 vplus=vcc vminus=0',
    'TM1 555 gnd=0 trig=t out=q reset=vcc ctrl=k thr=t dis=d vcc=vcc',
  ].join('\n'),
);

describe('voltages of a unit that is on', () => {
  it('are right, at the edge or out against the computed ones (common practice)', () => {
    expect([10.5, 11.2, 8, 0.03].map((v) => judgeVoltage(v, v === 0.03 ? 0 : 10).kind)).toEqual([
      'in',
      'edge',
      'out',
      'in',
    ]);
    expect(judgeVoltage(8, 10).sentence).toBe('8 V, 2 V below the computed 10 V');
  });

  it('tell when a chip has less than its type needs, or more than it stands (data sheets)', () => {
    const at = (volt: number) =>
      supplyVerdicts(circuit, new Map([['vcc', volt]])).map((s) => [s.ref, s.kind] as const);
    expect(at(12)).toEqual([
      ['U1', 'in'],
      ['U2', 'in'],
      ['TM1', 'in'],
    ]);
    expect(at(5)).toContainEqual(['U1', 'out']);
    expect(at(18)).toContainEqual(['TM1', 'out']);
    expect(supplyVerdicts(circuit, new Map())).toEqual([]);
  });

  it('give the current of a stage over its resistors, by Ohm’s law', () => {
    const seen = new Map([
      ['vcc', 12],
      ['c', 7.6],
      ['e', 0.47],
    ]);
    const computed = new Map([
      ['vcc', 12],
      ['c', 9.8],
      ['e', 0.47],
    ]);
    const [first, second] = restingCurrents(circuit, seen, computed);
    expect(first).toMatchObject({ ref: 'R1', through: ['Q1 c'], tone: 'out' });
    expect(first!.measured).toBeCloseTo(2e-3, 12);
    expect(first!.computed).toBeCloseTo(1e-3, 12);
    expect(second).toMatchObject({ ref: 'R2', through: ['Q1 e'], tone: 'in' });
  });

  it('have the ripple of their reservoir: I/(2 f C), any textbook', () => {
    expect(reservoirAt(circuit, 'vcc')).toBeCloseTo(1000e-6, 12);
    const load = { farad: 1000e-6, ampere: 0.1, mainsHz: 50 };
    expect(judgeRipple(0.05, 12, load).kind).toBe('in');
    expect(judgeRipple(0.9, 12, load)).toMatchObject({
      kind: 'edge',
      sentence: expect.stringContaining('1 V would be usual'),
    });
    expect(judgeRipple(2.5, 12, load)).toMatchObject({
      kind: 'out',
      sentence: expect.stringContaining('dried out'),
    });
    expect(judgeRipple(2.5, 12).kind).toBe('out');
  });
});
