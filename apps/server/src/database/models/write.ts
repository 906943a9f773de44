import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** A write that was carried out, by its idempotency key, with its answer. */
export class WriteModel extends Model<InferAttributes<WriteModel>, InferCreationAttributes<WriteModel>> {
  declare key: string;
  declare fingerprint: string;
  declare status: number | null;
  declare answer: unknown;
  declare createdAt: CreationOptional<Date>;
}

export function defineWrite(sequelize: Sequelize): void {
  WriteModel.init(
    {
      key: { type: DataTypes.TEXT, primaryKey: true },
      fingerprint: DataTypes.TEXT,
      status: DataTypes.INTEGER,
      answer: DataTypes.JSONB,
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'writes', underscored: true, timestamps: false },
  );
}
