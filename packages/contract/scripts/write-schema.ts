import { readFileSync, writeFileSync } from 'node:fs';
import { format, resolveConfig } from 'prettier';
import { unitFileJsonSchema } from '../src/unit-file-schema.ts';
import { withTables } from '../src/unit-file-tables.ts';

/** Writes docs/unit-file.schema.json and the tables of docs/unit-file.md from the contract; tests keep them together. */
const schema = new URL('../../../docs/unit-file.schema.json', import.meta.url);
writeFileSync(schema, `${JSON.stringify(unitFileJsonSchema(), null, 2)}\n`);
const document = new URL('../../../docs/unit-file.md', import.meta.url);
const config = await resolveConfig(document);
writeFileSync(
  document,
  await format(withTables(readFileSync(document, 'utf8')), { ...config, parser: 'markdown' }),
);
