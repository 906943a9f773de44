/** A closed contact, and an open one, ohm. */
export const CLOSED_OHM = 0.02;
export const OPEN_OHM = 1e10;
/** kT/q, V. */
export const VT = 0.025865;

/** Currents into an element from the voltages of its nets, and their slopes. */
export type Law = (v: readonly number[]) => {
  readonly i: readonly number[];
  readonly g: readonly (readonly number[])[];
};

export interface Element {
  readonly nets: readonly string[];
  readonly law: Law;
  /** The most a control voltage may move in a step, V; without it the element is a straight line. */
  readonly stepV?: number;
  /** The most that the difference of the first two nets may move in a step where it bends, V. */
  readonly inputV?: number;
}

export const ohmic = (a: string | undefined, b: string | undefined, ohm: number): Element[] =>
  a === undefined || b === undefined
    ? []
    : [
        {
          nets: [a, b],
          law: ([u = 0, v = 0]) => ({
            i: [(u - v) / ohm, (v - u) / ohm],
            g: [
              [1 / ohm, -1 / ohm],
              [-1 / ohm, 1 / ohm],
            ],
          }),
        },
      ];

/** An element by its currents alone; slopes by differences. */
export const byDifferences = (
  nets: readonly string[],
  stepV: number,
  currents: (v: readonly number[]) => number[],
): Element => ({
  nets,
  stepV,
  law: (v) => {
    const i = currents(v);
    const h = 1e-7;
    const columns = v.map((_, c) =>
      currents(v.map((x, k) => (k === c ? x + h : x))).map((x, r) => (x - i[r]!) / h),
    );
    return { i, g: i.map((_, r) => columns.map((column) => column[r]!)) };
  },
});
