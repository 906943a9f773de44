import type { Change } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import type { Circuit } from '../../circuit/circuit/index.ts';
import { parseChangeLine } from '../../sheet/sheet/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { typedWarnings, warningsOn } from './change-warnings.ts';

const MICROPHONE =
  circuitOf(`V1 48V p48 0\nR1 3k3 p48 vc\nR2 47k vc vz\nZ1 10V 0 vz\nC1 10u polarised 25V vz 0
  Q1 2N3904 c=vc b=vz e=ve\nR3 4k7 ve cap\nMK1 electret cap 0\nC6 10n cap 0`);

const told = (circuit: Circuit, line: string): string => {
  const read = parseChangeLine(line, circuit);
  if (!read.ok) throw new Error(read.problem.message);
  return typedWarnings(circuit, read.steps)
    .map((p) => p.message)
    .join(' ');
};

describe('what a typed change brings', () => {
  it('a reversed electrolytic, and nothing when it is turned round', () => {
    const line = (nets: string) => `cut ve at Q1.e as vr; +R20 470 vr ve; +C20 220u 63V polarised ${nets}`;
    expect(told(MICROPHONE, line('0 ve'))).toMatch(
      /C20: it is polarised, and its plus stands .* below its minus/,
    );
    expect(told(MICROPHONE, line('ve 0'))).toBe('');
    expect(told(MICROPHONE, line('ve 0').replace('63V', '6.3V'))).toContain('rated 6.3 V');
  });

  it('what hangs in the air, what has both ends on one net, and a value far from what was there', () => {
    expect(told(MICROPHONE, '+R20 470 vr ve; +C20 100n ve 0')).toContain(
      'its net vr is touched by nothing else',
    );
    expect(told(MICROPHONE, '+R20 470 ve ve')).toContain('both of its ends are on ve');
    expect(told(MICROPHONE, 'C6 -> 22p')).toContain('22 pF instead of 10 nF is 455 times less');
    expect(told(MICROPHONE, 'C6 -> 22n')).toBe('');
    expect(told(MICROPHONE, 'lift C6.a')).toBe('');
  });

  it('a starved chip, direct current through a loudspeaker, a pin beyond its rail, a relay that stays released', () => {
    const chip =
      circuitOf(`V1 12V vp 0\nR1 10k vp b\nR2 10k b 0\nU1 TL072 plus=b minus=o out=o vplus=vp vminus=0\nC1 100u o s\nLS1 8 s 0
      V2 15V hi 0\nR3 100k hi 0`);
    expect(told(chip, 'V1 -> 5V')).toContain('it needs at least 7 V');
    expect(told(chip, 'wire o to s')).toContain('of direct voltage stand across it');
    expect(told(chip, '+R9 1k hi b')).toMatch(/its plus input stands at .*, beyond its supply/);
    const relay = circuitOf('V1 6V v 0\nR1 1k v 0');
    expect(
      told(relay, '+K1 relay coilA=v coilB=0 com=a no=b coilOhm=400 pullInV=9; +R2 1k a 0; +R3 1k b 0'),
    ).toContain('stays released');
    expect(told(relay, '+R9 22 v 0')).toContain('of heat at rest');
  });

  it('is the one list of the layer, once it is planned', () => {
    const read = parseChangeLine('+R20 470 ve ve', MICROPHONE);
    if (!read.ok) throw new Error(read.problem.message);
    const change: Change = {
      id: 'm',
      name: 'm',
      purpose: 'modification',
      state: 'planned',
      steps: read.steps,
    };
    const circuit = { ...MICROPHONE, changes: [change] };
    expect(warningsOn(circuit, 'planned').map((p) => p.message)).toContain(
      'R20: both of its ends are on ve: it does nothing there.',
    );
    expect(warningsOn(circuit, 'marked')).toEqual([]);
  });
});
