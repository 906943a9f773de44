import Papa from 'papaparse';

/** The mark that sets the cells of a table apart: a tab or semicolon where one stands in its first line, else a comma. */
export function delimiterOf(text: string): string {
  const first = text.split(/\r?\n/, 1)[0] ?? '';
  return first.includes('\t') ? '\t' : first.includes(';') ? ';' : ',';
}

/** The cells of a table, line by line, as they were before they were kept from being taken for formulas. */
export function readCsv(text: string, options: { readonly skipsEmpty?: boolean } = {}): string[][] {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimiter: delimiterOf(text),
    skipEmptyLines: options.skipsEmpty === true ? 'greedy' : false,
  });
  return data.map((cells) => cells.map((cell) => cell.trim().replace(/^'(?='*[=+\-@\t\r])/, '')));
}

/** A table under its head that `readCsv` reads back, and a spreadsheet does not take for formulas. */
export const writeCsv = (fields: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  Papa.unparse(
    { fields: [...fields], data: rows.map((row) => [...row]) },
    // What has the mark already gets one more, so that its own comes back.
    { escapeFormulae: /^'*[=+\-@\t\r]/, newline: '\n' },
  );
