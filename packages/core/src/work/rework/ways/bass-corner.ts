import { formatQuantity } from '../../../base/quantity/index.ts';
import { evaluateReadout } from '../../../analysis/readouts/index.ts';
import { fit } from './parts.ts';
import { cannot, MIDDLE_HZ, type Place } from './place.ts';
import type { Stands, Way } from './way.ts';

/** A capacitor that lets less than this part of the tone through couples nothing. */
const COUPLES = 0.2;
/** Potentiometers whose ends are tried together; of more, each by itself. */
const MOST_POTS = 6;

/** A capacitor in the way of the signal, and which way it goes through it. */
function couplingOf(place: Place): { readonly from: string; readonly to: string } | null {
  const { part } = place;
  const { a, b } = part?.pins ?? {};
  if (part?.kind !== 'capacitor' || a === undefined || b === undefined) return null;
  if (a === place.ground || b === place.ground || place.isStill(a) || place.isStill(b)) return null;
  const [atA, atB] = [place.tone(a, a, LOW_HZ), place.tone(b, a, LOW_HZ)];
  const [from, to] = atA >= atB ? [a, b] : [b, a];
  const [most, least] = [place.tone(from, a), place.tone(to, a)];
  return least > COUPLES * most && most > 0 ? { from, to } : null;
}

/** Below every coupling, so that the tone falls along the way of the signal, Hz. */
const LOW_HZ = 1;

/** Every way in which the pots of a circuit stand at their ends together. */
function standsOf({ circuit }: Place): Stands[] {
  const pots = circuit.parts.filter((p) => p.kind === 'potentiometer').map((p) => p.ref);
  if (pots.length > MOST_POTS) return pots.flatMap((ref) => [0, 1].map((at) => new Map([[ref, at]])));
  return Array.from(
    { length: 2 ** pots.length },
    (_, bits) => new Map(pots.map((ref, i) => [ref, (bits >> i) & 1])),
  );
}

/** The corner of a coupling capacitor by what it works into, every pot at its worst at once. */
export const bassCorner: Way = {
  id: 'bass-corner',
  title: 'Bass corner by a coupling capacitor',
  isForHighTension: true,
  asks: (place) =>
    couplingOf(place) ? [{ id: 'hz', label: 'Corner', quantity: 'frequency', given: 20 }] : null,
  drafts(place, { hz }) {
    if (!(hz! > 0)) throw cannot('A corner lies above 0 Hz.');
    const part = place.part!;
    const { from, to } = couplingOf(place)!;
    const readout = { kind: 'corner', from, to, side: 'low', referenceHz: MIDDLE_HZ } as const;
    const cornerAt = (stands: Stands) => {
      const session = place.session.with({ controls: stands });
      const answer = evaluateReadout(session, { id: 'now', name: 'now', ...readout });
      return answer.ok ? answer.value : 0;
    };
    const [worst] = standsOf(place)
      .map((stands) => ({ stands, corner: cornerAt(stands) }))
      .sort((x, y) => y.corner - x.corner);
    const stands = worst && worst.stands.size > 0 && worst.corner > 0 ? { stands: worst.stands } : {};
    return [
      {
        name: `Bass ${formatQuantity(hz!, 'Hz')}`,
        steps: [fit(part.ref, place.worth(part))],
        unknowns: [{ refs: [part.ref], series: 'E12', goal: 0 }],
        goals: [
          { readout, aim: hz!, is: 'most', within: 0.06, ...stands },
          ...('stands' in stands ? [{ readout, aim: hz!, is: 'most', within: 0.06 } as const] : []),
        ],
        says: ({ value, reads }) => [
          `With ${formatQuantity(value(part.ref), 'F')} it is 3 dB down at ${formatQuantity(reads[0]!, 'Hz')}${'stands' in stands ? ', every pot at its worst' : ''}, by this capacitor alone.`,
        ],
        traps: ({ value }) => [
          'Two corners at one place are 6 dB down together: the others belong a third lower.',
          ...(value(part.ref) >= 1e-6
            ? ['An electrolytic has its plus where the direct voltage is higher.']
            : []),
        ],
      },
    ];
  },
};
