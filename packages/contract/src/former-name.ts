/** What the product was called before. Files, archives and what a browser or a data folder kept under that name still open. */
export const FORMER_NAME = 'halfsplit';

const NAME = 'zemble';

/**
 * Whether a file says that it is of a format, under the name of now or of before.
 *
 * @param said its `format`, whatever it holds
 * @param format as "zemble/unit"
 */
export const isOfFormat = (said: unknown, format: `${typeof NAME}/${string}`): boolean =>
  said === format || said === `${FORMER_NAME}${format.slice(NAME.length)}`;
