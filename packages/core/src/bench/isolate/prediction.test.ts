import { describe, expect, it } from 'vitest';
import type { LayerCircuit, LayerPart } from '../../circuit/circuit/index.ts';
import { circuitOf, randomCircuit, seeded } from '../../testing/circuits.ts';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { voltageQuantities } from './dictionary.ts';
import { faultsOfPart } from './part-faults.ts';
import { Predictor, sigmaOf, type Prediction, type Quantity } from './prediction.ts';

/** What is predicted of a circuit when nothing was computed before it. */
const alone = (circuit: LayerCircuit, quantities: readonly Quantity[], sound: LayerCircuit) =>
  new Predictor(quantities, sound).of(circuit);

const apart = (one: Prediction, other: Prediction): number =>
  Math.abs((one.value ?? 0) - (other.value ?? 0)) / sigmaOf(one);

describe('a row of neighbouring circuits', () => {
  it('is predicted as each is by itself, in any order: shared equations remember nothing', () => {
    for (const seed of [1, 2, 3]) {
      const sound = resolveLayer(randomCircuit(seed, 2), 'marked');
      const quantities = voltageQuantities(sound);
      const faults = sound.parts.flatMap(faultsOfPart);
      const random = seeded(seed);
      const drawn = [...faults].sort(() => random() - 0.5).slice(0, 40);
      const predictor = new Predictor(quantities, sound);
      predictor.of(sound);
      for (const fault of drawn) {
        const circuit = fault.apply(sound);
        const [row, own] = [predictor.of(circuit), alone(circuit, quantities, sound)];
        const where = `${seed}: ${fault.ref} ${fault.mode}`;
        expect(row === null, where).toBe(own === null);
        row?.forEach((p, i) => {
          const other = own![i]!;
          expect(p === null, where).toBe(other === null);
          if (p === null) return;
          expect(apart(p, other), where).toBeLessThan(0.01);
          p.moves.forEach((move, k) =>
            expect(Math.abs(move - other.moves[k]!) / sigmaOf(p), where).toBeLessThan(0.02),
          );
        });
      }
    }
  });
});

describe('a circuit with a section that is not traced', () => {
  it('is predicted without it', () => {
    const sound = resolveLayer(
      circuitOf(
        'V1 9V vcc 0\nR1 10k vcc a\nR2 10k a 0\nU1A TL072 plus=a minus=o out=o vplus=vcc vminus=0\nR3 10k o 0',
      ),
      'marked',
    );
    const [opamp] = sound.parts.filter((p) => p.kind === 'opamp');
    const spare = { ...opamp!, ref: 'U1B', pins: {}, isUntraced: true } as LayerPart;
    const quantities = voltageQuantities(sound);
    const withSpare = { ...sound, parts: [...sound.parts, spare] };
    const [own, other] = [sound, withSpare].map((c) => alone(c, quantities, c)!.map((p) => p?.value));
    expect(own!.every((v) => typeof v === 'number')).toBe(true);
    expect(other).toEqual(own);
  });
});
