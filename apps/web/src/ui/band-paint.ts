import type { BandColour } from '@zemble/core';

/** Paint of the bands; a colour code, not a part of the theme (IEC 60062). */
export const BAND_PAINT: Readonly<Record<BandColour, string>> = {
  black: '#1d1d1f',
  brown: '#7a4a21',
  red: '#c8261d',
  orange: '#e8781a',
  yellow: '#f2c81f',
  green: '#2f8a3d',
  blue: '#2459b8',
  violet: '#7d3fa8',
  grey: '#8b8d90',
  white: '#f7f7f4',
  gold: '#b8922f',
  silver: '#b9bcc0',
  pink: '#e79ab4',
};
