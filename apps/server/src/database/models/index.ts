import type { Model, ModelStatic, Sequelize } from 'sequelize';
import { BeepModel, defineBeep } from './beep.ts';
import { ChangeModel, defineChange } from './change.ts';
import { defineEvidence, EvidenceModel } from './evidence.ts';
import { defineLogEntry, LogEntryModel } from './log-entry.ts';
import { definePart, PartModel } from './part.ts';
import { definePerson } from './person.ts';
import { definePhoto, PhotoModel } from './photo.ts';
import { defineReading, ReadingModel } from './reading.ts';
import { defineReadout, ReadoutModel } from './readout.ts';
import { defineSessions } from './session.ts';
import { defineStock } from './stock.ts';
import { defineUnit, UnitModel } from './unit.ts';
import { defineWrite } from './write.ts';

export { BeepModel } from './beep.ts';
export { ChangeModel } from './change.ts';
export { EvidenceModel } from './evidence.ts';
export { LogEntryModel, type Inverse } from './log-entry.ts';
export { PartModel } from './part.ts';
export { PersonModel } from './person.ts';
export { PhotoModel } from './photo.ts';
export { ReadingModel } from './reading.ts';
export { ReadoutModel } from './readout.ts';
export { PairingModel, SessionModel } from './session.ts';
export { StockModel, StockMoveModel } from './stock.ts';
export { UnitModel, type UnitExtra } from './unit.ts';
export { WriteModel } from './write.ts';

/** Models whose rows belong to the record of a unit. */
export const RECORD_MODELS: readonly ModelStatic<Model>[] = [
  UnitModel,
  PartModel,
  ReadoutModel,
  ChangeModel,
  ReadingModel,
  EvidenceModel,
  BeepModel,
  PhotoModel,
  LogEntryModel,
];

export function defineModels(sequelize: Sequelize): void {
  for (const define of [
    defineUnit,
    definePart,
    defineReadout,
    defineChange,
    defineReading,
    defineEvidence,
    defineBeep,
    definePhoto,
    defineLogEntry,
    defineWrite,
    definePerson,
    defineSessions,
    defineStock,
  ])
    define(sequelize);
}
