import { z } from 'zod';
import { unitFileSchema } from './unit-file.ts';

/** The unit file's JSON Schema (draft 2020-12), as docs/unit-file.schema.json has it. */
export function unitFileJsonSchema(): object {
  return {
    title: 'Zemble unit file, version 1',
    // A part stands in a circuit and in the steps of changes: once, and referred to.
    ...z.toJSONSchema(unitFileSchema, { io: 'input', reused: 'ref' }),
  };
}
