import { readoutDefinitionOf } from '@zemble/contract';
import {
  evaluateAll,
  outsideBy,
  markedValue,
  resolveLayer,
  seededRandom,
  weighDrifts,
  type Circuit,
  type Part,
} from '@zemble/core';
import { describe, expect, it } from 'vitest';
import { DEMO_UNITS } from './index.ts';

/** Other parts that have drifted a little, and by how much. */
const BESIDES = 4;
const LITTLE = 0.01;
/** How far the planted part is off. */
const FACTOR = 2.5;

const canDrift = (p: Part) =>
  (p.kind === 'resistor' || p.kind === 'capacitor') && typeof markedValue(p) === 'number';
const withFound = (circuit: Circuit, values: ReadonlyMap<string, number>): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p) => (values.has(p.ref) ? { ...p, found: values.get(p.ref)! } : p)),
});

describe.each(DEMO_UNITS.map((u) => [u.document.unit.name ?? '', u.document] as const))(
  'a drift planted in %s',
  (name, { circuit, readouts }) => {
    it('is first by harm, and replacing the proposed parts brings every readout back', () => {
      const random = seededRandom(name.length);
      const quick = readouts.filter((r) => readoutDefinitionOf(r.kind).isSlow !== true);
      const outOf = (of: Circuit) =>
        evaluateAll(resolveLayer(of, 'found'), quick).filter(
          (a, i) => !a.ok || outsideBy(a.value, quick[i]!.want) !== 0,
        ).length;
      const sound = { ...circuit, parts: circuit.parts.map((p) => ({ ...p, found: null })) };
      const candidates = sound.parts.filter(canDrift);
      let planted = 0;
      for (const part of candidates) {
        const wrong = Number(markedValue(part)) * FACTOR;
        if (outOf(withFound(sound, new Map([[part.ref, wrong]]))) === 0) continue;
        planted += 1;
        const values = new Map([[part.ref, wrong]]);
        for (let i = 0; i < BESIDES; i += 1) {
          const other = candidates[Math.floor(random() * candidates.length)]!;
          if (other.ref !== part.ref)
            values.set(other.ref, Number(markedValue(other)) * (1 + LITTLE * (2 * random() - 1)));
        }
        const drifted = withFound(sound, values);
        expect(weighDrifts(drifted, readouts).drifts[0]!.ref, part.ref).toBe(part.ref);
        const { refs } = weighDrifts(drifted, readouts).replacement;
        expect(refs, part.ref).toContain(part.ref);
        for (const ref of refs!) values.delete(ref);
        expect(outOf(withFound(sound, values)), part.ref).toBe(0);
      }
      expect(planted).toBeGreaterThan(0);
    }, 120_000);
  },
);
