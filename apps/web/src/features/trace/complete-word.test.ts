import { parseSheetLine, type Circuit, type Part } from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { completed, completions } from './complete-word.ts';

const circuit: Circuit = {
  ground: '0',
  parts: ['V1 9V vcc 0', 'R1 1k vcc out', 'R2 1k out out2'].map((line): Part => {
    const read = parseSheetLine(line);
    if (!read.ok) throw new Error(line);
    return read.part;
  }),
};

describe('completions', () => {
  it('offers nets that begin like the word, in the order of the circuit', () => {
    expect(completions('R3 1k ou', circuit)).toEqual(['out', 'out2']);
    expect(completions('R3 1k vcc o', circuit)).toEqual(['out', 'out2']);
  });

  it('offers type numbers of the kind and pins by name where the order is ambiguous', () => {
    expect(completions('Q1 2N39', circuit)).toEqual(['2N3904', '2N3906']);
    expect(completions('Q1 2N3904 c', circuit)).toEqual(['c=']);
    expect(completions('Q1 2N3904 c=v', circuit)).toEqual(['c=vcc']);
    expect(completions('R3 1k c', circuit)).toEqual([]);
  });

  it('offers nothing for the designator itself, for an empty word, or for what is there already', () => {
    expect(completions('R', circuit)).toEqual([]);
    expect(completions('R3 1k ', circuit)).toEqual([]);
    expect(completions('R3 1k out out', circuit)).toEqual(['out2']);
  });

  it('replaces the last word and goes on behind it', () => {
    expect(completed('R3 1k ou', 'out')).toBe('R3 1k out ');
    expect(completed('Q1 2N3904 c', 'c=')).toBe('Q1 2N3904 c=');
  });
});
