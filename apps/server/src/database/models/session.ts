import {
  DataTypes,
  Model,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';

/** A device that a person is signed in on; the token is kept as its digest. */
export class SessionModel extends Model<
  InferAttributes<SessionModel>,
  InferCreationAttributes<SessionModel>
> {
  declare token: string;
  declare personId: string;
  declare createdAt: Date;
  declare seenAt: Date;
}

/** A code that lets one more device of a person in, once; kept as its digest. */
export class PairingModel extends Model<
  InferAttributes<PairingModel>,
  InferCreationAttributes<PairingModel>
> {
  declare code: string;
  declare personId: string;
  declare expiresAt: Date;
  declare usedAt: Date | null;
}

export function defineSessions(sequelize: Sequelize): void {
  SessionModel.init(
    {
      token: { type: DataTypes.TEXT, primaryKey: true },
      personId: DataTypes.UUID,
      createdAt: DataTypes.DATE,
      seenAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'sessions', underscored: true, timestamps: false },
  );
  PairingModel.init(
    {
      code: { type: DataTypes.TEXT, primaryKey: true },
      personId: DataTypes.UUID,
      expiresAt: DataTypes.DATE,
      usedAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'pairings', underscored: true, timestamps: false },
  );
}
