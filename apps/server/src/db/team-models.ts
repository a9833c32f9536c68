import type { Role } from '@zest/contract';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import { id, key, moment, settingsOf, team, when } from './columns.ts';

/** A way into a team, once; only its hash is kept. */
export class InviteRow extends Model<
  InferAttributes<InviteRow>,
  InferCreationAttributes<InviteRow>
> {
  declare codeSha: string;
  declare teamId: string;
  declare role: Role;
  declare expiresAt: Date;
  declare usedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
}

/** A way to a new password, once; only its hash is kept. */
export class PasswordLinkRow extends Model<
  InferAttributes<PasswordLinkRow>,
  InferCreationAttributes<PasswordLinkRow>
> {
  declare codeSha: string;
  declare userId: string;
  declare expiresAt: Date;
  declare createdAt: CreationOptional<Date>;
}

/** What an owner has decided for the whole installation. */
export class SettingRow extends Model<
  InferAttributes<SettingRow>,
  InferCreationAttributes<SettingRow>
> {
  declare name: 'address';
  declare value: string;
}

export class CommentRow extends Model<
  InferAttributes<CommentRow>,
  InferCreationAttributes<CommentRow>
> {
  declare id: string;
  declare teamId: string;
  declare lessonId: string;
  declare authorId: string;
  declare text: string;
  declare atMs: number | null;
  declare blockId: string | null;
  declare doneAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
}

/** Who did what; a lesson's revisions say it themselves. */
export class AuditRow extends Model<InferAttributes<AuditRow>, InferCreationAttributes<AuditRow>> {
  declare id: CreationOptional<number>;
  declare teamId: string;
  declare personId: string;
  /** The route that was called, as it is listed. */
  declare what: string;
  declare subject: string;
  declare createdAt: CreationOptional<Date>;
}

/** Ties the models of working together to a connection. */
export function defineTeamModels(sequelize: Sequelize): void {
  const common = settingsOf(sequelize);
  InviteRow.init(
    {
      codeSha: { type: DataTypes.CHAR(64), primaryKey: true },
      teamId: team(),
      role: { type: DataTypes.STRING(10), allowNull: false },
      expiresAt: { type: DataTypes.DATE(3), allowNull: false },
      usedAt: when(),
      createdAt: moment(),
    },
    { ...common, tableName: 'invites' },
  );
  PasswordLinkRow.init(
    {
      codeSha: { type: DataTypes.CHAR(64), primaryKey: true },
      userId: id(),
      expiresAt: { type: DataTypes.DATE(3), allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'password_links' },
  );
  SettingRow.init(
    { name: key(), value: { type: DataTypes.TEXT, allowNull: false } },
    { ...common, tableName: 'settings' },
  );
  CommentRow.init(
    {
      id: key(),
      teamId: team(),
      lessonId: id(),
      authorId: id(),
      text: { type: DataTypes.STRING(400), allowNull: false },
      atMs: { type: DataTypes.INTEGER, allowNull: true, defaultValue: null },
      blockId: { type: DataTypes.STRING(40), allowNull: true, defaultValue: null },
      doneAt: when(),
      createdAt: moment(),
    },
    { ...common, tableName: 'comments' },
  );
  AuditRow.init(
    {
      id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
      teamId: team(),
      personId: id(),
      what: { type: DataTypes.STRING(120), allowNull: false },
      subject: { type: DataTypes.STRING(120), allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'audit' },
  );
}
