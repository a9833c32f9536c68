import type { Erasure } from '@zest/contract';
import type { Side } from '@zest/core/lesson';
import type { EntryKind, LogEntry } from '@zest/core/results';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import { id, key, moment, settingsOf, team } from './columns.ts';

export class ClassRow extends Model<InferAttributes<ClassRow>, InferCreationAttributes<ClassRow>> {
  declare id: string;
  declare teamId: string;
  declare code: string;
  /** What the teacher set of it, as JSON. */
  declare document: string;
  declare createdAt: CreationOptional<Date>;
}

export class StudentRow extends Model<
  InferAttributes<StudentRow>,
  InferCreationAttributes<StudentRow>
> {
  declare id: string;
  declare teamId: string;
  declare classId: string;
  declare code: string;
  declare nickname: string;
  declare team: CreationOptional<string>;
  declare language: CreationOptional<string | null>;
  declare hand: CreationOptional<Side | null>;
  /** Ways of the lesson page their card brings along, one word each. */
  declare page: CreationOptional<string>;
  declare createdAt: CreationOptional<Date>;
}

/** A device a student joined with. What it holds is kept as a hash only. */
export class StudentDeviceRow extends Model<
  InferAttributes<StudentDeviceRow>,
  InferCreationAttributes<StudentDeviceRow>
> {
  declare tokenSha: string;
  declare studentId: string;
  declare createdAt: CreationOptional<Date>;
}

/** A state of the lesson that a link has shown. */
export class ShareVersionRow extends Model<
  InferAttributes<ShareVersionRow>,
  InferCreationAttributes<ShareVersionRow>
> {
  declare code: string;
  declare version: number;
  declare revision: number;
  declare createdAt: CreationOptional<Date>;
}

export class LogEntryRow extends Model<
  InferAttributes<LogEntryRow>,
  InferCreationAttributes<LogEntryRow>
> {
  declare id: string;
  declare teamId: string;
  declare classId: string;
  declare studentId: string;
  declare lessonId: string | null;
  declare kind: EntryKind;
  declare madeBy: LogEntry['by'];
  declare at: Date;
  /** As JSON. */
  declare body: string;
  declare createdAt: CreationOptional<Date>;
}

export class ErasureRow extends Model<
  InferAttributes<ErasureRow>,
  InferCreationAttributes<ErasureRow>
> {
  declare id: string;
  declare teamId: string;
  declare what: Erasure['what'];
  declare entries: number;
  declare createdAt: CreationOptional<Date>;
}

/** Ties the models of classes and their log to a connection. */
export function defineLogModels(sequelize: Sequelize): void {
  const common = settingsOf(sequelize);
  ClassRow.init(
    {
      id: key(),
      teamId: team(),
      code: id(),
      document: { type: DataTypes.TEXT, allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'classes' },
  );
  StudentRow.init(
    {
      id: key(),
      teamId: team(),
      classId: id(),
      code: id(),
      nickname: id(),
      team: { ...id(), defaultValue: '' },
      language: { type: DataTypes.STRING(35), allowNull: true, defaultValue: null },
      hand: { type: DataTypes.STRING(10), allowNull: true, defaultValue: null },
      page: { type: DataTypes.STRING(80), allowNull: false, defaultValue: '' },
      createdAt: moment(),
    },
    { ...common, tableName: 'students' },
  );
  StudentDeviceRow.init(
    {
      tokenSha: { type: DataTypes.CHAR(64), primaryKey: true },
      studentId: id(),
      createdAt: moment(),
    },
    { ...common, tableName: 'student_devices' },
  );
  ShareVersionRow.init(
    {
      code: key(),
      version: { type: DataTypes.INTEGER, allowNull: false, primaryKey: true },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'share_versions' },
  );
  LogEntryRow.init(
    {
      id: key(),
      teamId: team(),
      classId: id(),
      studentId: id(),
      lessonId: { type: DataTypes.STRING(40), allowNull: true, defaultValue: null },
      kind: { type: DataTypes.STRING(20), allowNull: false },
      madeBy: { type: DataTypes.STRING(10), allowNull: false },
      at: { type: DataTypes.DATE(3), allowNull: false },
      body: { type: DataTypes.TEXT, allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'log_entries' },
  );
  ErasureRow.init(
    {
      id: key(),
      teamId: team(),
      what: { type: DataTypes.STRING(40), allowNull: false },
      entries: { type: DataTypes.INTEGER, allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'erasures' },
  );
}
