import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type {
  FieldVersions,
  Hazard,
  IntakeData,
  OwnModel,
  PathData,
  Stage,
  UnitPlace,
  UnitResource,
} from '@zemble/contract';

/** Fields of a unit file that this version does not use, kept for the next export. */
export interface UnitExtra {
  readonly file?: Record<string, unknown>;
  readonly unit?: Record<string, unknown>;
  readonly circuit?: Record<string, unknown>;
}

export class UnitModel extends Model<InferAttributes<UnitModel>, InferCreationAttributes<UnitModel>> {
  declare id: string;
  declare number: CreationOptional<number>;
  /** Edits that the record has had. */
  declare sequence: CreationOptional<number>;
  declare versions: CreationOptional<FieldVersions>;
  declare isDemo: CreationOptional<boolean>;
  declare name: string;
  declare kind: string;
  declare hazards: Hazard[];
  declare hazardNotes: string;
  declare settings: UnitResource['settings'];
  declare sets: CreationOptional<UnitResource['sets']>;
  declare wires: CreationOptional<UnitResource['wires']>;
  declare boards: CreationOptional<UnitResource['boards']>;
  declare panels: CreationOptional<UnitResource['panels']>;
  declare ticks: CreationOptional<UnitResource['ticks']>;
  declare notes: string;
  declare stage: Stage;
  declare place: CreationOptional<UnitPlace>;
  declare ground: string;
  declare nudges: UnitResource['nudges'];
  declare models: OwnModel[];
  declare path: PathData | null;
  declare intake: IntakeData;
  declare extra: UnitExtra;
  declare lastActivityAt: Date;
}

export function defineUnit(sequelize: Sequelize): void {
  UnitModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      number: { type: DataTypes.INTEGER, autoIncrement: true },
      sequence: { type: DataTypes.INTEGER, defaultValue: 0 },
      versions: { type: DataTypes.JSONB, defaultValue: {} },
      isDemo: { type: DataTypes.BOOLEAN, defaultValue: false },
      name: DataTypes.TEXT,
      kind: DataTypes.TEXT,
      hazards: DataTypes.JSONB,
      hazardNotes: { type: DataTypes.TEXT, defaultValue: '' },
      settings: { type: DataTypes.JSONB, defaultValue: [] },
      sets: { type: DataTypes.JSONB, defaultValue: [] },
      wires: { type: DataTypes.JSONB, defaultValue: [] },
      boards: { type: DataTypes.JSONB, defaultValue: [] },
      panels: { type: DataTypes.JSONB, defaultValue: [] },
      ticks: { type: DataTypes.JSONB, defaultValue: {} },
      notes: DataTypes.TEXT,
      stage: DataTypes.TEXT,
      place: { type: DataTypes.TEXT, defaultValue: 'bench' },
      ground: DataTypes.TEXT,
      nudges: DataTypes.JSONB,
      models: { type: DataTypes.JSONB, defaultValue: [] },
      path: DataTypes.JSONB,
      intake: { type: DataTypes.JSONB, defaultValue: {} },
      extra: DataTypes.JSONB,
      lastActivityAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'units', underscored: true, timestamps: false },
  );
}
