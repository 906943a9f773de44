/** Whether two pieces of JSON say the same; fields that are undefined are as good as absent. */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) || Array.isArray(b))
    return (
      Array.isArray(a) &&
      Array.isArray(b) &&
      a.length === b.length &&
      a.every((each, i) => isSame(each, b[i]))
    );
  const names = (of: object) => Object.entries(of).filter(([, value]) => value !== undefined);
  const [mine, others] = [names(a), new Map(names(b))];
  return (
    mine.length === others.size &&
    mine.every(([name, value]) => others.has(name) && isSame(value, others.get(name)))
  );
}
