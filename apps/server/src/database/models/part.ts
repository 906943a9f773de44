import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { PartKind, FilePart } from '@zemble/contract';

type StoredValue = FilePart['marked'];

export class PartModel extends Model<InferAttributes<PartModel>, InferCreationAttributes<PartModel>> {
  declare id: string;
  declare unitId: string;
  declare version: number;
  declare position: number;
  declare ref: string;
  declare kind: PartKind;
  declare pins: Record<string, string>;
  declare marked: StoredValue;
  declare proven: StoredValue;
  /** Tolerance, model, parameters and whatever else the part has. */
  declare extra: Record<string, unknown>;
  /** A removed part keeps its row: its readings hang on it, and the step can be undone. */
  declare removedAt: Date | null;
}

export function definePart(sequelize: Sequelize): void {
  PartModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      version: DataTypes.INTEGER,
      position: DataTypes.INTEGER,
      ref: DataTypes.TEXT,
      kind: DataTypes.TEXT,
      pins: DataTypes.JSONB,
      marked: DataTypes.JSONB,
      proven: DataTypes.JSONB,
      extra: DataTypes.JSONB,
      removedAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'parts', underscored: true, timestamps: false },
  );
}
