import type { FileChange } from '@zemble/contract';
import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** A change to the circuit of a unit: what was done to it, or is to be. */
export class ChangeModel extends Model<InferAttributes<ChangeModel>, InferCreationAttributes<ChangeModel>> {
  declare id: string;
  declare unitId: string;
  declare version: number;
  declare position: number;
  declare definition: FileChange;
  declare removedAt: Date | null;
}

export function defineChange(sequelize: Sequelize): void {
  ChangeModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      version: DataTypes.INTEGER,
      position: DataTypes.INTEGER,
      definition: DataTypes.JSONB,
      removedAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'changes', underscored: true, timestamps: false },
  );
}
