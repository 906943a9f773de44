/**
 * How far parts of one type differ between makers and batches (common practice): factors either way, and shares. One place,
 * so that a verdict and a search take the same parts for sound.
 */
export const TYPE_SPREAD = {
  /** Saturation currents of junctions, as a factor. */
  saturation: 3,
  /** Current gains, and the transconductance of junction FETs, as a factor. */
  gain: 2,
  /** Pinch-off of a junction FET, as a share. */
  pinchOff: 0.4,
  /** Capacities of junctions, as a factor. */
  junction: 2,
  /** Perveance of valves, as a factor. */
  valve: 1.3,
  /** Offset of an operational amplifier, V. */
  offsetV: 3e-3,
  /** Voltage of a zener and of a supply, as shares. */
  zener: 0.05,
  supply: 0.03,
} as const;
