/** Bytes at the beginning that are looked at for how a text is written. */
const LOOKED_AT = 1000;

/** How a text is written, by its mark or by where its zero bytes stand. */
function encodingOf(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | 'utf-8' {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be';
  const first = bytes.subarray(0, LOOKED_AT);
  const zeros = [0, 0];
  first.forEach((byte, i) => {
    if (byte === 0) zeros[i % 2]! += 1;
  });
  const many = first.length / 8;
  if (zeros[1]! > many && zeros[0] === 0) return 'utf-16le';
  if (zeros[0]! > many && zeros[1] === 0) return 'utf-16be';
  return 'utf-8';
}

/**
 * The text of a file as spreadsheets and meters write them: UTF-8 or UTF-16, with a mark or without; what is none of these
 * is taken as Windows-1252.
 */
export function textOfBytes(bytes: Uint8Array): string {
  const encoding = encodingOf(bytes);
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

export const textOfFile = async (file: Blob): Promise<string> =>
  textOfBytes(new Uint8Array(await file.arrayBuffer()));
