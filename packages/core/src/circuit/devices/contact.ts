import { conductance } from './conductance.ts';
import { CONTACT_OHM, OPEN_S, thermalNoise } from './constants.ts';
import { add, addPair, pairSlots, type Device, type DeviceType, type Terminals } from './device.ts';

/** A contact's conductance: a milliohm when closed, a teraohm when open, S. */
const contactS = (isClosed: boolean, ohm = CONTACT_OHM) => (isClosed ? 1 / ohm : OPEN_S);

/** Switch, jumper or fuse: closed unless `closed` is false, with the resistance that its contact is said to have. */
export const contact: DeviceType<'switch' | 'jumper' | 'fuse'> = {
  create: (part, _value, t) =>
    conductance(part.ref, t.node('a'), t.node('b'), contactS(part.closed !== false, part.contactOhm), t),
};

/** Several contacts of one part; its current is that of the first. */
function contacts(
  ref: string,
  pairs: readonly (readonly [from: number | undefined, to: number | undefined, isClosed: boolean])[],
  t: Terminals,
  region: string,
): Device {
  const made = pairs.flatMap(([from, to, isClosed]) =>
    from === undefined || to === undefined ? [] : [conductance(ref, from, to, contactS(isClosed), t)],
  );
  return {
    ref,
    stamp: (m) => made.forEach((c) => c.stamp?.(m)),
    report(x) {
      const reports = made.map((c) => c.report(x));
      return {
        current: reports.reduce((sum, r) => sum + r.current, 0),
        power: reports.reduce((sum, r) => sum + r.power, 0),
        region,
      };
    },
    noise: (x) => made.flatMap((c) => c.noise?.(x) ?? []),
  };
}

/** Changeover switch: `com` to the throw that its position names. */
export const changeover: DeviceType<'changeover'> = {
  create(part, _value, t) {
    const at = part.position ?? 'a';
    const com = t.node('com');
    return contacts(
      part.ref,
      [
        [com, t.node('a'), at === 'a'],
        [com, t.node('b'), at === 'b'],
      ],
      t,
      at,
    );
  },
};

/** Jack: a plug opens its switched contacts, and a mono plug joins ring to sleeve. */
export const jack: DeviceType<'jack'> = {
  create(part, _value, t) {
    const isIn = part.inserted === true;
    const [ring, sleeve] = [t.optionalNode('ring'), t.node('sleeve')];
    return contacts(
      part.ref,
      [
        [t.node('tip'), t.optionalNode('tipSwitch'), !isIn],
        [ring, t.optionalNode('ringSwitch'), !isIn],
        [ring, sleeve, isIn && (part.plug ?? 'mono') === 'mono'],
      ],
      t,
      isIn ? 'plug in' : 'empty',
    );
  },
};

/**
 * Relay: a coil resistance, and a contact that leaves `nc` for `no` when the coil's voltage has been at `pullInV` for `operateS`
 * and goes back when it has been below `dropOutV` for `releaseS`. At an operating point it is pulled in when the voltage is at
 * least `pullInV`; in time its state changes between steps.
 */
export const relay: DeviceType<'relay'> = {
  create(part, _value, t) {
    const { coilOhm = USUAL_COIL_OHM, pullInV = USUAL_PULL_IN_V, dropOutV = USUAL_DROP_OUT_V } = part;
    const { operateS = USUAL_OPERATE_S, releaseS = USUAL_RELEASE_S } = part;
    const [coilA, coilB, com] = [t.node('coilA'), t.node('coilB'), t.node('com')];
    const coil = conductance(part.ref, coilA, coilB, 1 / coilOhm, t);
    const throws = ([['no', true] as const, ['nc', false] as const] as const).flatMap(
      ([pin, isMadeWhenOn]) => {
        const node = t.optionalNode(pin);
        return node === undefined ? [] : [{ node, isMadeWhenOn, slots: pairSlots(t, com, node) }];
      },
    );
    let isOn = false;
    let isHeld = false;
    /** When the armature that is on its way arrives, s. */
    let arrivesS = Number.POSITIVE_INFINITY;
    const coilV = (x: Float64Array) => Math.abs(x[coilA]! - x[coilB]!);
    /** Where the armature stands or is on its way to: on its way it goes on until the voltage is past the other threshold. */
    const headsOn = () => (arrivesS === Number.POSITIVE_INFINITY ? isOn : !isOn);
    const thresholdV = () => (headsOn() ? dropOutV : pullInV);
    const siemens = (isMadeWhenOn: boolean) => contactS(isMadeWhenOn === isOn);
    return {
      ref: part.ref,
      balanced: [com, ...throws.map((each) => each.node)],
      stamp: (m) => coil.stamp?.(m),
      load(x, m) {
        if (m.isStatic && !isHeld) isOn = coilV(x) >= pullInV;
        for (const { node, isMadeWhenOn, slots } of throws) {
          const g = siemens(isMadeWhenOn);
          const current = (x[com]! - x[node]!) * g;
          add(m.f, com, current);
          add(m.f, node, -current);
          addPair(m.g, slots, g);
        }
      },
      curvature: () => 0,
      settle(x, timeS) {
        if (coilV(x) >= thresholdV() !== headsOn()) {
          // Turned back on its way it is where it was; otherwise it sets out.
          if (arrivesS < Number.POSITIVE_INFINITY) arrivesS = Number.POSITIVE_INFINITY;
          else arrivesS = timeS + (isOn ? releaseS : operateS);
        }
        if (timeS < arrivesS) return false;
        isOn = !isOn;
        arrivesS = Number.POSITIVE_INFINITY;
        return true;
      },
      dueS: () => arrivesS,
      crossings: (x) => [coilV(x) - thresholdV()],
      hold(held) {
        isHeld = held;
      },
      beginTime(isFromZero) {
        if (isFromZero) isOn = false;
        arrivesS = Number.POSITIVE_INFINITY;
      },
      report(x) {
        const { current, power } = coil.report(x);
        return { current, power, region: isOn ? 'pulled in' : 'released' };
      },
      noise: (x) => [
        ...(coil.noise?.(x) ?? []),
        ...throws.map(({ node, isMadeWhenOn }) => ({
          from: com,
          to: node,
          white: thermalNoise(siemens(isMadeWhenOn)),
          flicker: 0,
        })),
      ],
    };
  },
};
const USUAL_COIL_OHM = 300;
export const USUAL_PULL_IN_V = 9;
const USUAL_DROP_OUT_V = 1.2;
/** Of a small relay (common practice). */
const USUAL_OPERATE_S = 5e-3;
const USUAL_RELEASE_S = 2e-3;
