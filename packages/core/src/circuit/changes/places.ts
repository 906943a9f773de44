import type { Change } from '@zemble/contract';

/** The parts and nets that the steps of a change name. */
export function placesOf(change: Pick<Change, 'steps'>): { refs: string[]; nets: string[] } {
  const refs = new Set<string>();
  const nets = new Set<string>();
  const pin = (text: string) => refs.add(text.slice(0, text.lastIndexOf('.')));
  for (const step of change.steps) {
    switch (step.do) {
      case 'fit':
      case 'remove':
        refs.add(step.ref);
        break;
      case 'add':
        refs.add(step.part.ref);
        break;
      case 'lift':
        pin(step.pin);
        break;
      case 'cut':
        nets.add(step.net);
        step.pins.forEach(pin);
        break;
      case 'join':
        nets.add(step.net).add(step.to);
        break;
      case 'move':
        pin(step.pin);
        nets.add(step.to);
        break;
    }
  }
  return { refs: [...refs], nets: [...nets] };
}

/** Designators and nets that changes bring into a circuit. */
export function namesIn(changes: readonly Pick<Change, 'steps'>[]): { refs: string[]; nets: string[] } {
  const steps = changes.flatMap((c) => c.steps);
  const added = steps.flatMap((s) => (s.do === 'add' ? [s.part] : []));
  return {
    refs: added.map((p) => p.ref),
    nets: [
      ...added.flatMap((p) => Object.values(p.pins)),
      ...steps.flatMap((s) =>
        s.do === 'cut' ? [s.as] : s.do === 'move' ? [s.to] : s.do === 'lift' ? [s.pin] : [],
      ),
    ],
  };
}

/** Whether a leg of a part hangs free in a circuit with its changes made: a lifted pin has a net of its own name. */
export const isLegOut = ({
  ref,
  pins,
}: {
  readonly ref: string;
  readonly pins: Readonly<Record<string, string>>;
}): boolean => Object.entries(pins).some(([pin, net]) => net === `${ref}.${pin}`);
