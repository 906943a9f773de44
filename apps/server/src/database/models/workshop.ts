import type { MainsHz } from '@zemble/contract';
import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** What holds for the whole workshop: one row at most. */
export class WorkshopModel extends Model<
  InferAttributes<WorkshopModel>,
  InferCreationAttributes<WorkshopModel>
> {
  declare id: 1;
  declare mainsHz: MainsHz;
}

export function defineWorkshop(sequelize: Sequelize): void {
  WorkshopModel.init(
    { id: { type: DataTypes.SMALLINT, primaryKey: true }, mainsHz: DataTypes.SMALLINT },
    { sequelize, underscored: true, timestamps: false, tableName: 'workshop' },
  );
}
