/**
 * A second bench, to check the first against: it draws a real unit within its tolerances and spreads, and reads it with
 * its own instruments. It shares the types and the published parameters with the engine, and none of its methods: dense
 * nodal equations by Gauss, currents by Newton's method with every junction's step held to a few kT/q.
 */
export { drawn } from './drawn.ts';
export { faradBetween, ohmsBetween, voltsAt } from './instruments.ts';
