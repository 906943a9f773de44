import type { RowOf } from '@zemble/contract';
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
import { defineWorkshop } from './workshop.ts';
import { defineWrite } from './write.ts';

export { BeepModel } from './beep.ts';
export { ChangeModel } from './change.ts';
export { EvidenceModel } from './evidence.ts';
export { LogEntryModel } from './log-entry.ts';
export { PartModel } from './part.ts';
export { PersonModel } from './person.ts';
export { PhotoModel } from './photo.ts';
export { ReadingModel } from './reading.ts';
export { ReadoutModel } from './readout.ts';
export { PairingModel, SessionModel } from './session.ts';
export { StockModel, StockMoveModel } from './stock.ts';
export { UnitModel, type UnitExtra } from './unit.ts';
export { WorkshopModel } from './workshop.ts';
export { WriteModel } from './write.ts';

/** The model of each kind of row of a unit's record. */
export const ROW_MODELS = {
  part: PartModel,
  readout: ReadoutModel,
  change: ChangeModel,
  reading: ReadingModel,
  evidence: EvidenceModel,
  beep: BeepModel,
  photo: PhotoModel,
  log: LogEntryModel,
} as const satisfies Record<RowOf, ModelStatic<Model>>;
export type RowModel<Of extends RowOf> = InstanceType<(typeof ROW_MODELS)[Of]>;

/** Models whose rows belong to the record of a unit. */
export const RECORD_MODELS: readonly ModelStatic<Model>[] = [UnitModel, ...Object.values(ROW_MODELS)];

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
    defineWorkshop,
  ])
    define(sequelize);
}
