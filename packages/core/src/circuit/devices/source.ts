import { BOLTZMANN, TEMPERATURE_K } from './constants.ts';
import { add, type Device, type DeviceType, type Terminals } from './device.ts';
import { waveformOf } from './waveform.ts';

/** An EMF behind a resistance, plus to minus; its current (in at plus) is an unknown of its own. */
function electromotive(ref: string, resistance: number, t: Terminals) {
  const [plus, minus, branch] = [t.node('plus'), t.node('minus'), t.unknown('current')];
  const slots = {
    intoPlus: t.slot(plus, branch),
    intoMinus: t.slot(minus, branch),
    fromPlus: t.slot(branch, plus),
    fromMinus: t.slot(branch, minus),
    self: t.slot(branch, branch),
  };
  const device: Omit<Device, 'excite'> = {
    ref,
    driveRow: branch,
    stamp(m) {
      add(m.g, slots.intoPlus, 1);
      add(m.g, slots.intoMinus, -1);
      add(m.g, slots.fromPlus, 1);
      add(m.g, slots.fromMinus, -1);
      add(m.g, slots.self, -resistance);
    },
    report: (x) => ({ current: x[branch]!, power: -(x[plus]! - x[minus]!) * x[branch]! }),
    noise: () => [{ from: 0, to: branch, white: 4 * BOLTZMANN * TEMPERATURE_K * resistance, flicker: 0 }],
  };
  return { device, branch };
}

/** Direct voltage supply. Its power is positive when it delivers. */
export const supply: DeviceType<'supply'> = {
  create(part, value, t) {
    const { device, branch } = electromotive(part.ref, part.resistance ?? 0, t);
    let volt = value ?? 0;
    return {
      ...device,
      retune(next) {
        volt = next;
      },
      excite: (b, when) => add(b, branch, volt * when.scale),
    };
  },
};

/** Signal source: `offset` in DC analyses, its waveform in time, a unit drive in AC. */
export const signal: DeviceType<'signal'> = {
  create(part, value, t) {
    const { device, branch } = electromotive(part.ref, part.resistance ?? 0, t);
    const offset = part.offset ?? 0;
    let waveform = waveformOf(part, value ?? 0);
    return {
      ...device,
      retune(next) {
        waveform = waveformOf(part, next);
      },
      excite: (b, when) => add(b, branch, when.timeS === null ? offset * when.scale : waveform(when.timeS)),
    };
  },
};
