import { ledgerOf, plainDocument, reportChanges, writeUnitFile } from '@zemble/core';
import { loadUnit } from '../file.ts';
import type { Options } from '../options.ts';

/** `circuit FILE --layer L`: the circuit of a layer as a unit file without changes. */
export async function circuit(options: Options): Promise<unknown> {
  const document = await loadUnit(options);
  return JSON.parse(writeUnitFile(plainDocument(document, options.layer())));
}

/** `changes FILE`: every change with its problems and its way back, and what is temporary and in force. */
export async function changes(options: Options): Promise<unknown> {
  const { circuit: written } = await loadUnit(options);
  const reports = reportChanges(written);
  const ledger = ledgerOf(reports);
  return {
    changes: reports.map(({ change, problems, undo, does }) => ({
      id: change.id,
      name: change.name,
      purpose: change.purpose,
      state: change.state,
      ...(change.set === undefined ? {} : { set: change.set }),
      does,
      problems,
      undo,
    })),
    ledger: ledger.map(({ id, sentence, undo, since }) => ({ id, sentence, undo, since })),
    closable: ledger.length === 0,
  };
}
