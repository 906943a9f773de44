import type { LayerCircuit, LayerPart } from '../../circuit/circuit/index.ts';
import { parameter } from './parameters.ts';

/** A unit as it may really be: every part somewhere in its tolerance, every control somewhere, every type somewhere in its spread. */
export function drawn(
  circuit: LayerCircuit,
  random: () => number,
  toleranceOf: (part: LayerPart) => number,
): LayerCircuit {
  const around = () => 2 * random() - 1;
  const by = (factor: number) => factor ** around();
  return {
    ...circuit,
    parts: circuit.parts.map((p): LayerPart => {
      const value = typeof p.value === 'number' ? p.value * (1 + toleranceOf(p) * around()) : p.value;
      switch (p.kind) {
        case 'resistor':
        case 'capacitor':
        case 'load':
        case 'speaker':
        case 'headphone':
          return { ...p, value };
        case 'potentiometer':
          return { ...p, value, position: random() };
        case 'switch':
          return { ...p, closed: random() < 0.5 };
        case 'changeover':
          return { ...p, position: random() < 0.5 ? 'a' : 'b' };
        case 'diode':
        case 'led':
          return { ...p, params: { ...p.params, IS: parameter(p, 'IS', 1e-14) * by(3) } };
        case 'bjt':
          return {
            ...p,
            params: {
              ...p.params,
              IS: parameter(p, 'IS', 1e-14) * by(3),
              BF: parameter(p, 'BF', 100) * by(2),
            },
          };
        default:
          return p;
      }
    }),
  };
}
