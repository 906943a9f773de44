import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { FileReadout } from '@zemble/contract';

export class ReadoutModel extends Model<
  InferAttributes<ReadoutModel>,
  InferCreationAttributes<ReadoutModel>
> {
  declare id: string;
  declare unitId: string;
  declare version: number;
  declare position: number;
  declare definition: FileReadout;
  declare removedAt: Date | null;
}

export function defineReadout(sequelize: Sequelize): void {
  ReadoutModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      version: DataTypes.INTEGER,
      position: DataTypes.INTEGER,
      definition: DataTypes.JSONB,
      removedAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'readouts', underscored: true, timestamps: false },
  );
}
