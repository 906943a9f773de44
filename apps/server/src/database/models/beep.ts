import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { BeepData } from '@zemble/contract';

/** What beeped with what. Never changed but for being withdrawn, or for what it beeps through. */
export class BeepModel extends Model<InferAttributes<BeepModel>, InferCreationAttributes<BeepModel>> {
  declare id: string;
  declare unitId: string;
  declare definition: BeepData;
  declare takenAt: Date;
  declare withdrawnAt: Date | null;
}

export function defineBeep(sequelize: Sequelize): void {
  BeepModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      unitId: DataTypes.UUID,
      definition: DataTypes.JSONB,
      takenAt: DataTypes.DATE,
      withdrawnAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'beeps', underscored: true, timestamps: false },
  );
}
