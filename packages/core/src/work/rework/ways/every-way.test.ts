import { describe, expect, it } from 'vitest';
import { evaluateReadout } from '../../../analysis/readouts/index.ts';
import { circuitOf, randomCircuit } from '../../../testing/circuits.ts';
import { placesOf, waysAtPlaces } from '../../../testing/ways-at-places.ts';
import { sessionWith } from '../../../testing/with-steps.ts';

const RAILS = 'V1 15V vp 0\nV2 15V 0 vm';
const PLUS = `${RAILS}\nG1 10mV in 0\nR1 100k in 0
  U1 TL072 plus=in minus=m out=out vplus=vp vminus=vm\nR2 1k m 0\nR3 10k out m`;

/** Circuits that are drawn: more by `ZEMBLE_WAYS`. */
const CIRCUITS = Number(process.env.ZEMBLE_WAYS ?? 30);

describe('every way of doing', () => {
  it(
    'promises what the circuit with its change reads, wherever it offers itself',
    { timeout: 300_000 },
    () => {
      let checked = 0;
      for (let seed = 1; seed <= CIRCUITS; seed += 1) {
        const circuit = randomCircuit(seed, 1 + (seed % 2));
        // A run in time takes seconds: at some of them.
        const isTried = ({ id }: { id: string }) => id !== 'mute-relay' || seed % 15 === 0;
        for (const { way, chosen, made, refusal } of waysAtPlaces(circuit, { isTried })) {
          const what = `${way.id} at ${JSON.stringify(chosen)} of ${seed}`;
          if (!made) {
            expect(refusal, what).toHaveProperty('problem');
            continue;
          }
          const session = sessionWith(circuit, made.steps);
          expect(made.promises.length, what).toBeGreaterThan(0);
          for (const { readout, value, unit } of made.promises) {
            const answer = evaluateReadout(session, readout);
            expect(answer.ok, `${what}: ${readout.kind}`).toBe(true);
            const off = answer.ok ? Math.abs(answer.value - value) : Infinity;
            expect(off, what).toBeLessThanOrEqual(
              unit === 'dB' ? 0.1 : 0.01 * Math.abs(value) + (unit === 'V' ? 0.01 : 1e-9),
            );
            checked += 1;
          }
        }
      }
      expect(checked).toBeGreaterThan(CIRCUITS * 10);
    },
  );

  it('answers nonsense with a sentence', () => {
    const circuit = circuitOf(
      `${PLUS}\nC1 10u out ld\nLS1 8 ld 0\nC9 1000u vp 0 polarised\nQ1 2N3904 vp bb ee\nR8 1M vp bb\nR9 1k ee 0\nC8 10u ee 0`,
    );
    const places = [...placesOf(circuit), { net: 'nowhere' }];
    let tried = 0;
    for (const answer of [0, -5, 1e-30, 1e30, Number.NaN])
      for (const { way, chosen, made, refusal } of waysAtPlaces(circuit, { places, answer })) {
        const what = `${way.id} ${JSON.stringify(chosen)} ${answer}: ${String(refusal)}`;
        if (made) expect(JSON.stringify(made.steps), what).not.toMatch(/null/);
        else expect(refusal, what).toHaveProperty('problem');
        tried += 1;
      }
    expect(tried).toBeGreaterThan(100);
  });
});
