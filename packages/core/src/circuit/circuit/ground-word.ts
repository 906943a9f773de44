/** What people call the ground, whatever its net is named. */
const GROUND_WORDS = /^(?:gnd|ground|earth|masse)$/i;

/** A net as it was typed: one of the words for the ground is the circuit's ground. */
export const asTypedNet = (text: string, ground: string): string =>
  text !== ground && GROUND_WORDS.test(text) ? ground : text;
