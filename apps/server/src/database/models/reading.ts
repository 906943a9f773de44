import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { Between, ReadingCondition } from '@zemble/contract';

/** A reading of a part or of a readout. Never changed but for being withdrawn, and for what is told later of how it was read. */
export class ReadingModel extends Model<
  InferAttributes<ReadingModel>,
  InferCreationAttributes<ReadingModel>
> {
  declare id: string;
  declare unitId: string;
  declare partId: string | null;
  declare readoutId: string | null;
  declare changeId: CreationOptional<string | null>;
  declare ref: CreationOptional<string | null>;
  declare value: number | 'open' | 'short';
  declare condition: ReadingCondition;
  declare instrument: string | null;
  declare esr: CreationOptional<number | null>;
  declare aspect: CreationOptional<string | null>;
  declare red: CreationOptional<string | null>;
  declare isAsDrawn: CreationOptional<boolean>;
  declare between: CreationOptional<Between | null>;
  declare takenAt: Date;
  declare withdrawnAt: Date | null;
}

export function defineReading(sequelize: Sequelize): void {
  ReadingModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      partId: DataTypes.UUID,
      readoutId: DataTypes.UUID,
      changeId: DataTypes.UUID,
      ref: DataTypes.TEXT,
      value: DataTypes.JSONB,
      condition: DataTypes.TEXT,
      instrument: DataTypes.TEXT,
      esr: DataTypes.DOUBLE,
      aspect: DataTypes.TEXT,
      red: DataTypes.TEXT,
      isAsDrawn: { type: DataTypes.BOOLEAN, defaultValue: false },
      between: DataTypes.JSONB,
      takenAt: DataTypes.DATE,
      withdrawnAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'readings', underscored: true, timestamps: false },
  );
}
