import { describe, expect, it } from 'vitest';
import { textOfBytes } from './text-of-file.ts';

const TEXT = 'part;value\nR1;4k7 Ω\nC3;3,9µ\n';
const utf16 = (text: string, isLittle: boolean, withMark: boolean) => {
  const units = [...(withMark ? '\uFEFF' : ''), ...text].map((c) => c.charCodeAt(0));
  return Uint8Array.from(units.flatMap((u) => (isLittle ? [u & 255, u >> 8] : [u >> 8, u & 255])));
};

describe('the text of a file', () => {
  it('is read as it was written', () => {
    expect(textOfBytes(new TextEncoder().encode(TEXT))).toBe(TEXT);
    expect(textOfBytes(new TextEncoder().encode(`\uFEFF${TEXT}`))).toBe(TEXT);
    for (const isLittle of [true, false])
      for (const withMark of [true, false]) expect(textOfBytes(utf16(TEXT, isLittle, withMark))).toBe(TEXT);
  });

  it('is taken as Windows-1252 where it is neither', () => {
    // 0xb5 is the micro sign there (Windows code page 1252), and no beginning of a character in UTF-8.
    expect(textOfBytes(Uint8Array.from([0x33, 0xb5, 0x46]))).toBe('3µF');
  });

  it('of an empty file is empty', () => {
    expect(textOfBytes(new Uint8Array())).toBe('');
  });
});
