import { PART_KINDS } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import {
  partFields,
  resembling,
  unknownModelNames,
  unknownPartNames,
  unknownReadoutNames,
} from './field-values.ts';

const partOf = (line: string) => circuitOf(line).parts[0]!;

describe('names that a kind does not know', () => {
  it('are listed with the known name that they resemble', () => {
    const opamp = { ...partOf('U1 TL072 plus=a minus=b out=b vplus=c vminus=0'), GBP: 3e6 };
    expect(unknownPartNames(opamp)).toEqual([{ name: 'GBP', resembles: 'GBW' }]);
    expect(unknownPartNames({ ...opamp, params: { qwertyuiop: 1 } })).toContainEqual({ name: 'qwertyuiop' });
    expect(unknownModelNames('bjt', { BF: 200, Bf2: 1 })).toEqual([{ name: 'Bf2', resembles: 'BF' }]);
    const readout = { kind: 'gain' as const, frequncyHz: 1000 };
    expect(unknownReadoutNames(readout)).toEqual([{ name: 'frequncyHz', resembles: 'frequencyHz' }]);
  });

  it('are none of a part as its kind describes it', () => {
    for (const kind of PART_KINDS) {
      const named = Object.fromEntries(partFields({ kind }).map(({ name }) => [name, 1]));
      expect(unknownPartNames({ kind, ...named })).toEqual([]);
    }
  });

  it('resemble whatever is the same in other letters, and nothing that is quite another word', () => {
    expect(resembling('gbw', ['GBW', 'AOL'])).toBe('GBW');
    expect(resembling('AOLL', ['GBW', 'AOL'])).toBe('AOL');
    expect(resembling('colour', ['GBW', 'AOL'])).toBeUndefined();
    expect(resembling('GBW', [])).toBeUndefined();
  });
});
