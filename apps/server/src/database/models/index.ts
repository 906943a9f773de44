import type { Sequelize } from 'sequelize';
import { defineEvidence } from './evidence.ts';
import { defineLogEntry } from './log-entry.ts';
import { definePart } from './part.ts';
import { definePerson } from './person.ts';
import { definePhoto } from './photo.ts';
import { defineReading } from './reading.ts';
import { defineReadout } from './readout.ts';
import { defineSessions } from './session.ts';
import { defineUnit } from './unit.ts';
import { defineWrite } from './write.ts';

export { EvidenceModel } from './evidence.ts';
export { LogEntryModel, type Inverse } from './log-entry.ts';
export { PartModel } from './part.ts';
export { PersonModel } from './person.ts';
export { PhotoModel } from './photo.ts';
export { ReadingModel } from './reading.ts';
export { ReadoutModel } from './readout.ts';
export { PairingModel, SessionModel } from './session.ts';
export { UnitModel, type UnitExtra } from './unit.ts';
export { WriteModel } from './write.ts';

export function defineModels(sequelize: Sequelize): void {
  for (const define of [
    defineUnit,
    definePart,
    defineReadout,
    defineReading,
    defineEvidence,
    definePhoto,
    defineLogEntry,
    defineWrite,
    definePerson,
    defineSessions,
  ])
    define(sequelize);
}
