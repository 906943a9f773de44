import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { judgePinNote, readPinNote } from './index.ts';

const circuit = circuitOf(`
  U1 TL071 plus=in minus=m out=out vplus=vcc vminus=0
  V1 15V vcc 0
  C1 4u7 vcc 0 polarised
  R1 10k out m
  R2 1k m 0
`);
const [chip] = circuit.parts;
const judged = (pin: string, text: string) => judgePinNote(circuit, chip!, pin, text);

describe('what a data sheet has around a pin', () => {
  it('is read as where it leads, through what, and what for', () => {
    expect(readPinNote('to gnd through 10u: rejects ripple')).toEqual({
      to: 'gnd',
      through: '10u',
      why: 'rejects ripple',
    });
    expect(readPinNote('to out')).toEqual({ to: 'out', why: '' });
    expect(readPinNote('leave open')).toEqual({ why: 'leave open' });
  });

  it('is held against what is fitted, and another value is a difference', () => {
    expect(judged('vplus', 'to gnd through 10u: rejects ripple')).toMatchObject({
      kind: 'other value',
      sentence: 'The sheet has to gnd through 10u, which rejects ripple; the maker fitted 4µ7 (C1).',
    });
    expect(judged('vplus', 'to gnd through 4.7u').kind).toBe('as the sheet');
    expect(judged('out', 'to U1.minus through 9k1').kind).toBe('as the sheet');
    expect(judged('out', 'to m through 100k').kind).toBe('other value');
  });

  it('is open where nothing lies between, or it leads nowhere', () => {
    expect(judged('out', 'to gnd through 47n').kind).toBe('open');
    // A supply lies between too, and is no part that a value is of.
    expect(judged('vplus', 'to gnd through 1k').kind).toBe('open');
    expect(judged('vminus', 'to gnd').kind).toBe('as the sheet');
    expect(judged('plus', 'to gnd').kind).toBe('open');
    expect(judged('plus', 'to nowhere through 1k').kind).toBe('open');
    expect(judged('plus', 'as short as can be').kind).toBe('words');
  });
});
