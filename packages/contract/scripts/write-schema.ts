import { writeFileSync } from 'node:fs';
import { unitFileJsonSchema } from '../src/unit-file-schema.ts';

/** Writes docs/unit-file.schema.json from the contract; a test keeps the two together. */
const target = new URL('../../../docs/unit-file.schema.json', import.meta.url);
writeFileSync(target, `${JSON.stringify(unitFileJsonSchema(), null, 2)}\n`);
