import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** A person who works at the bench from any machine. The passphrase is an Argon2 hash. */
export class PersonModel extends Model<InferAttributes<PersonModel>, InferCreationAttributes<PersonModel>> {
  declare id: string;
  declare name: string;
  declare passphrase: string;
  declare isOwner: boolean;
  declare createdAt: Date;
}

export function definePerson(sequelize: Sequelize): void {
  PersonModel.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      name: DataTypes.TEXT,
      passphrase: DataTypes.TEXT,
      isOwner: DataTypes.BOOLEAN,
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'people', underscored: true, timestamps: false },
  );
}
