type Path = readonly PropertyKey[];

/** What keeps some JSON from being kept, and where it is. */
export interface Unkeepable {
  readonly path: Path;
  readonly sentence: string;
}

/** Deeper than this nothing is nested that a person made. */
const DEEPEST = 60;
const NUL = 'it holds the character NUL, which cannot be kept; leave it out';
const HALF = 'it holds half of a character (a lone surrogate), which cannot be kept; leave it out';
const DEEP = `it is nested more than ${DEEPEST} levels deep`;

const wrongWith = (text: string): string | undefined =>
  text.includes('\0') ? NUL : /\p{Surrogate}/u.test(text) ? HALF : undefined;

/** The first place in some JSON that no database keeps: a text or a name with NUL or half a character, or nesting too deep. */
export function unkeepableIn(json: unknown): Unkeepable | undefined {
  const open: { readonly value: unknown; readonly path: Path }[] = [{ value: json, path: [] }];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const { value, path } = next;
    if (path.length > DEEPEST) return { path: path.slice(0, 3), sentence: DEEP };
    const wrong = typeof value === 'string' ? wrongWith(value) : undefined;
    if (wrong !== undefined) return { path, sentence: wrong };
    if (typeof value !== 'object' || value === null) continue;
    for (const [key, inner] of Object.entries(value)) {
      const wrongName = wrongWith(key);
      if (wrongName !== undefined) return { path, sentence: wrongName };
      open.push({ value: inner, path: [...path, Array.isArray(value) ? Number(key) : key] });
    }
  }
  return undefined;
}

/** Whether JSON text opens more brackets inside each other than a person's file does; told before it is parsed. */
export function isTooDeep(text: string): boolean {
  let depth = 0;
  let isInside = false;
  for (let i = 0; i < text.length; i += 1) {
    const c = text[i];
    if (isInside) {
      if (c === '\\') i += 1;
      else if (c === '"') isInside = false;
    } else if (c === '"') isInside = true;
    else if (c === '{' || c === '[') {
      depth += 1;
      if (depth > DEEPEST) return true;
    } else if (c === '}' || c === ']') depth -= 1;
  }
  return false;
}
