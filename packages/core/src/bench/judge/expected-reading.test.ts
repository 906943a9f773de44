import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { expectedAlone, expectedInCircuit } from './expected-reading.ts';

describe('what the meter should read across a part before it is touched', () => {
  it('takes what lies beside it, by the law of parallel resistances, each end at its tolerance', () => {
    const circuit = circuitOf('V1 9V vcc 0\nR1 100k a 0\nR2 47k a b\nR3 300k b 0');
    // 100k ∥ 347k = 77.63k; all of them at 5 % less, or more.
    const { words, reason } = expectedInCircuit(circuit, 'R1')!;
    expect(words).toBe('about 77.6 kΩ, 73.7 to 81.5 kΩ');
    expect(reason).toContain('R3');
  });

  it('adds capacities that lie side by side', () => {
    const circuit = circuitOf('V1 9V vcc 0\nC4 220u 20% vcc 0\nC5 100n 10% vcc 0');
    expect(expectedInCircuit(circuit, 'C5')!.words).toBe('about 220 µF, 176 to 264 µF');
  });

  it('tells both ways of the leads where a junction lies beside it', () => {
    const circuit = circuitOf('V1 9V vcc 0\nR1 100k a b\nD1 1N4148 a b\nR2 10k b 0');
    const { words } = expectedInCircuit(circuit, 'R1')!;
    // Backwards the diode takes nothing that matters; forwards its type's spread is in the range (0.4 V full scale).
    expect(words).toMatch(/^red lead at a about 35\.6 kΩ, .*; at b about 99\.8 kΩ, 94\..* to 105 kΩ$/);
    const [low, high] = /about \S+ kΩ, (\S+) to (\S+) kΩ;/.exec(words)!.slice(1).map(Number);
    expect(high! - low!).toBeGreaterThan(2);
  });

  it('is the part itself once its leg is out', () => {
    const circuit = circuitOf('V1 9V vcc 0\nR1 100k a 0\nR2 47k a 0');
    const lifted = {
      ...circuit,
      changes: [
        {
          id: 'x',
          name: 'R1 read by itself',
          purpose: 'diagnosis' as const,
          state: 'done' as const,
          steps: [{ do: 'lift' as const, pin: 'R1.a' }],
        },
      ],
    };
    expect(expectedInCircuit(circuit, 'R1')!.words).toMatch(/^about 32 kΩ/);
    expect(expectedInCircuit(lifted, 'R1')!.words).toBe('about 100 kΩ, 95 to 105 kΩ');
    expect(expectedAlone(circuit.parts[1]!)!.words).toBe('about 100 kΩ, 95 to 105 kΩ');
  });

  it('says nothing of what no meter reads, nor of a part that is not there', () => {
    const circuit = circuitOf('V1 9V vcc 0\nQ1 2N3904 vcc b e\nR1 1k e 0\nR2 1M vcc b');
    expect(expectedInCircuit(circuit, 'Q1')).toBeNull();
    expect(expectedInCircuit(circuit, 'R9')).toBeNull();
    expect(expectedAlone(circuit.parts.find((p) => p.ref === 'Q1')!)).toBeNull();
  });
});
