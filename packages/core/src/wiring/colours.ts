/** Words for the colours of wires (IEC 60757), and what has none. */
export const WIRE_COLOURS = [
  'black',
  'brown',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'violet',
  'grey',
  'white',
  'pink',
  'turquoise',
  'bare',
  'screen',
] as const;
