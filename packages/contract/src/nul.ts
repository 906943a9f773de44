type Path = readonly PropertyKey[];

/** Where in some JSON, however deep, a text or a name holds the character NUL, which no database keeps. */
export function nulAt(json: unknown): Path | undefined {
  const open: { readonly value: unknown; readonly path: Path }[] = [{ value: json, path: [] }];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const { value, path } = next;
    if (typeof value === 'string' && value.includes('\0')) return path;
    if (typeof value !== 'object' || value === null) continue;
    for (const [key, inner] of Object.entries(value)) {
      if (key.includes('\0')) return path;
      open.push({ value: inner, path: [...path, Array.isArray(value) ? Number(key) : key] });
    }
  }
  return undefined;
}

export const NUL_SENTENCE = 'it holds the character NUL, which cannot be kept; leave it out';
