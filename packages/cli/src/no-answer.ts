/** A computation without an answer, in one sentence: exit 1. */
export class NoAnswer extends Error {}
