/** Boltzmann constant, J/K (SI, exact). */
export const BOLTZMANN = 1.380649e-23;
/** Elementary charge, C (SI, exact). */
export const ELEMENTARY_CHARGE = 1.602176634e-19;
/** Temperature of every analysis unless said otherwise, K. */
export const TEMPERATURE_K = 300.15;
/** Thermal voltage kT/q, V. */
export const THERMAL_VOLTAGE = (BOLTZMANN * TEMPERATURE_K) / ELEMENTARY_CHARGE;
/** Conductance floor of every junction, S. */
export const JUNCTION_FLOOR_S = 1e-12;
/** What stands for an open part or contact, S: a teraohm, as good insulation has. */
export const OPEN_S = 1e-12;
/** What stands for a shorted part or closed contact, ohm: a milliohm, as a good joint has. */
export const CONTACT_OHM = 1e-3;
/** Thermal noise current density of a conductance, A^2/Hz (Nyquist 1928). */
export const thermalNoise = (siemens: number): number => 4 * BOLTZMANN * TEMPERATURE_K * siemens;
