import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** A write that was carried out, by its idempotency key: where its answer is found. */
export class WriteModel extends Model<InferAttributes<WriteModel>, InferCreationAttributes<WriteModel>> {
  declare key: string;
  declare fingerprint: string;
  declare status: number | null;
  declare unitId: string | null;
  declare sequence: number | null;
  declare createdAt: CreationOptional<Date>;
}

export function defineWrite(sequelize: Sequelize): void {
  WriteModel.init(
    {
      key: { type: DataTypes.TEXT, primaryKey: true },
      fingerprint: DataTypes.TEXT,
      status: DataTypes.INTEGER,
      unitId: DataTypes.UUID,
      sequence: DataTypes.INTEGER,
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'writes', underscored: true, timestamps: false },
  );
}
