import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { RetakeReason, Role } from '@zest/contract';
import { id, key, moment, settingsOf, sha, team, when } from './columns.ts';
import { defineLogModels } from './log-models.ts';
import { defineTeamModels } from './team-models.ts';

export class User extends Model<InferAttributes<User>, InferCreationAttributes<User>> {
  declare id: string;
  declare login: string;
  declare passwordHash: string;
  /** The team's first owner; null for somebody who was taken out of it. */
  declare teamId: string | null;
  declare role: Role;
  declare createdAt: CreationOptional<Date>;
}

export class LessonRow extends Model<
  InferAttributes<LessonRow>,
  InferCreationAttributes<LessonRow>
> {
  declare id: string;
  declare teamId: string;
  /** The newest revision. */
  declare revision: number;
  declare createdAt: CreationOptional<Date>;
  declare deletedAt: CreationOptional<Date | null>;
  declare archivedAt: CreationOptional<Date | null>;
  declare isTemplate: CreationOptional<boolean>;
  /** Who of the team sees to it. */
  declare keeperId: CreationOptional<string | null>;
}

export class SeriesRow extends Model<
  InferAttributes<SeriesRow>,
  InferCreationAttributes<SeriesRow>
> {
  declare id: string;
  declare teamId: string;
  /** As in the document; no two of one teacher are alike. */
  declare name: string;
  declare revision: number;
  /** The series document as JSON. */
  declare document: string;
  declare createdAt: CreationOptional<Date>;
}

export class CueEntryRow extends Model<
  InferAttributes<CueEntryRow>,
  InferCreationAttributes<CueEntryRow>
> {
  declare id: string;
  declare teamId: string;
  /** The entry without its id, as JSON. */
  declare document: string;
  declare createdAt: CreationOptional<Date>;
}

export class RevisionRow extends Model<
  InferAttributes<RevisionRow>,
  InferCreationAttributes<RevisionRow>
> {
  declare lessonId: string;
  declare revision: number;
  /** The lesson document as JSON. */
  declare document: string;
  /** Who saved it; null before that was kept. */
  declare authorId: CreationOptional<string | null>;
  declare createdAt: CreationOptional<Date>;
}

export type TakeSource = 'upload' | 'camera' | 'practice' | 'picture' | 'music';

/** A piece of footage. Its state is read off what is there: original, working copy, fault. */
export class TakeRow extends Model<InferAttributes<TakeRow>, InferCreationAttributes<TakeRow>> {
  declare id: string;
  declare teamId: string;
  declare lessonId: string;
  declare blockId: string;
  declare name: string;
  declare source: TakeSource;
  declare createdAt: CreationOptional<Date>;
  /** Content hashes in the media store. */
  declare originalSha: CreationOptional<string | null>;
  declare workingSha: CreationOptional<string | null>;
  /** How the working copy was made; null: before that was kept. */
  declare workingBy: CreationOptional<number | null>;
  /** The same smaller, for the pages; null where the working copy is small enough. */
  declare previewSha: CreationOptional<string | null>;
  declare thumbsSha: CreationOptional<string | null>;
  declare waveSha: CreationOptional<string | null>;
  declare frames: CreationOptional<number>;
  declare thumbs: CreationOptional<number>;
  declare hasSound: CreationOptional<boolean>;
  /** Pixels of the working copy; null before that was kept. */
  declare width: CreationOptional<number | null>;
  declare height: CreationOptional<number | null>;
  /** The file's sound tracks as JSON, and which of them is heard. */
  declare soundTracks: CreationOptional<string | null>;
  declare soundTrack: CreationOptional<number>;
  /** What was seen and heard of the working copy, and how it was looked at. */
  declare watchedSha: CreationOptional<string | null>;
  declare analyserVersion: CreationOptional<number | null>;
  /** Where the script's sentences were found, as JSON. */
  declare said: CreationOptional<string | null>;
  /** Smaller versions of the working copy for slow lines, as JSON; null until they were made. */
  declare renditions: CreationOptional<string | null>;
  declare fault: CreationOptional<string | null>;
  /** What of the file could not be read, of a take that can be used all the same. */
  declare damage: CreationOptional<string | null>;
  declare performanceId: CreationOptional<string | null>;
  /** Where its marks say the block starts and ends, in milliseconds of the working copy. */
  declare markStartMs: CreationOptional<number | null>;
  declare markEndMs: CreationOptional<number | null>;
  declare markRate: CreationOptional<number | null>;
  declare reason: CreationOptional<RetakeReason | null>;
  declare note: CreationOptional<string>;
  declare binnedAt: CreationOptional<Date | null>;
}

/** A block performed once, before any number of cameras. */
export class PerformanceRow extends Model<
  InferAttributes<PerformanceRow>,
  InferCreationAttributes<PerformanceRow>
> {
  declare id: string;
  declare teamId: string;
  declare lessonId: string;
  declare blockId: string;
  declare shotId: string;
  /** What its sync marks say. */
  declare number: number;
  declare playedMs: number | null;
  declare createdAt: CreationOptional<Date>;
}

export const jobKinds = ['ingest', 'watch', 'renditions', 'export'] as const;
export type JobKind = (typeof jobKinds)[number];
export type JobState = 'queued' | 'running' | 'held' | 'done' | 'failed' | 'cancelled';

export class JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  declare id: string;
  declare teamId: string;
  declare kind: JobKind;
  declare subjectId: string;
  /** Equal inputs give equal hashes: a job is not done twice. */
  declare inputHash: string;
  declare input: string;
  declare state: JobState;
  declare progress: CreationOptional<number>;
  declare message: CreationOptional<string>;
  declare result: CreationOptional<string | null>;
  declare attempts: CreationOptional<number>;
  declare cancelRequested: CreationOptional<boolean>;
  declare holdRequested: CreationOptional<boolean>;
  /** Higher comes first. */
  declare priority: CreationOptional<number>;
  declare leaseUntil: CreationOptional<Date | null>;
  declare workerId: CreationOptional<string | null>;
  declare startedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

export class ShareRow extends Model<InferAttributes<ShareRow>, InferCreationAttributes<ShareRow>> {
  declare code: string;
  declare teamId: string;
  declare lessonId: string;
  declare revision: number;
  declare createdAt: CreationOptional<Date>;
  declare revokedAt: CreationOptional<Date | null>;
  /** The class it is for; null: whoever has the link. */
  declare classId: CreationOptional<string | null>;
  /** Read out together with the class's code. */
  declare spoken: CreationOptional<string | null>;
  declare opensAt: CreationOptional<Date | null>;
  declare closesAt: CreationOptional<Date | null>;
  declare version: CreationOptional<number>;
}

/** Ties the models to a connection. The tables themselves are made by the migrations. */
/** People, what they plan, and the links to it. */
function defineLessonModels(common: ReturnType<typeof settingsOf>): void {
  User.init(
    {
      id: key(),
      login: { type: DataTypes.STRING(80), allowNull: false },
      passwordHash: { type: DataTypes.STRING(255), allowNull: false },
      teamId: { type: DataTypes.STRING(40), allowNull: true },
      role: { type: DataTypes.STRING(10), allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'users' },
  );
  LessonRow.init(
    {
      id: key(),
      teamId: team(),
      revision: { type: DataTypes.INTEGER, allowNull: false },
      createdAt: moment(),
      deletedAt: { type: DataTypes.DATE(3), allowNull: true },
      archivedAt: { type: DataTypes.DATE(3), allowNull: true },
      isTemplate: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      keeperId: { type: DataTypes.STRING(40), allowNull: true, defaultValue: null },
    },
    { ...common, tableName: 'lessons' },
  );
  SeriesRow.init(
    {
      id: key(),
      teamId: team(),
      name: { type: DataTypes.STRING(120), allowNull: false },
      revision: { type: DataTypes.INTEGER, allowNull: false },
      document: { type: DataTypes.TEXT('long'), allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'series' },
  );
  CueEntryRow.init(
    {
      id: key(),
      teamId: team(),
      document: { type: DataTypes.TEXT, allowNull: false },
      createdAt: moment(),
    },
    { ...common, tableName: 'cue_entries' },
  );
  RevisionRow.init(
    {
      lessonId: key(),
      revision: { type: DataTypes.INTEGER, allowNull: false, primaryKey: true },
      document: { type: DataTypes.TEXT('long'), allowNull: false },
      authorId: { type: DataTypes.STRING(40), allowNull: true, defaultValue: null },
      createdAt: moment(),
    },
    { ...common, tableName: 'lesson_revisions' },
  );
  ShareRow.init(
    {
      code: key(),
      teamId: team(),
      lessonId: id(),
      revision: { type: DataTypes.INTEGER, allowNull: false },
      createdAt: moment(),
      revokedAt: when(),
      classId: { type: DataTypes.STRING(40), allowNull: true, defaultValue: null },
      spoken: { type: DataTypes.STRING(40), allowNull: true, defaultValue: null },
      opensAt: when(),
      closesAt: when(),
      version: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 },
    },
    { ...common, tableName: 'shares' },
  );
}

/** What is filmed, and the work on it. */
function defineFilmModels(common: ReturnType<typeof settingsOf>): void {
  TakeRow.init(
    {
      id: key(),
      teamId: team(),
      lessonId: id(),
      blockId: id(),
      name: { type: DataTypes.STRING(200), allowNull: false },
      source: { type: DataTypes.STRING(20), allowNull: false },
      createdAt: moment(),
      originalSha: sha(),
      workingSha: sha(),
      workingBy: { type: DataTypes.INTEGER, allowNull: true, defaultValue: null },
      previewSha: sha(),
      thumbsSha: sha(),
      waveSha: sha(),
      frames: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      thumbs: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      hasSound: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      width: { type: DataTypes.INTEGER, allowNull: true, defaultValue: null },
      height: { type: DataTypes.INTEGER, allowNull: true, defaultValue: null },
      soundTracks: { type: DataTypes.TEXT, allowNull: true, defaultValue: null },
      soundTrack: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      watchedSha: sha(),
      analyserVersion: {
        type: DataTypes.INTEGER,
        field: 'watched_by',
        allowNull: true,
        defaultValue: null,
      },
      said: { type: DataTypes.TEXT('medium'), allowNull: true, defaultValue: null },
      renditions: { type: DataTypes.TEXT, allowNull: true, defaultValue: null },
      fault: { type: DataTypes.TEXT, allowNull: true },
      damage: { type: DataTypes.TEXT, allowNull: true, defaultValue: null },
      performanceId: { type: DataTypes.STRING(40), allowNull: true, defaultValue: null },
      markStartMs: { type: DataTypes.INTEGER, allowNull: true, defaultValue: null },
      markEndMs: { type: DataTypes.INTEGER, allowNull: true, defaultValue: null },
      markRate: { type: DataTypes.DOUBLE, allowNull: true, defaultValue: null },
      reason: { type: DataTypes.STRING(40), allowNull: true, defaultValue: null },
      note: { type: DataTypes.STRING(400), allowNull: false, defaultValue: '' },
      binnedAt: { type: DataTypes.DATE(3), allowNull: true, defaultValue: null },
    },
    { ...common, tableName: 'takes' },
  );
  PerformanceRow.init(
    {
      id: key(),
      teamId: team(),
      lessonId: id(),
      blockId: id(),
      shotId: id(),
      number: { type: DataTypes.INTEGER, allowNull: false },
      playedMs: { type: DataTypes.INTEGER, allowNull: true },
      createdAt: moment(),
    },
    { ...common, tableName: 'performances' },
  );
  JobRow.init(
    {
      id: key(),
      teamId: team(),
      kind: { type: DataTypes.STRING(20), allowNull: false },
      subjectId: id(),
      inputHash: { type: DataTypes.CHAR(64), allowNull: false },
      input: { type: DataTypes.TEXT('long'), allowNull: false },
      state: { type: DataTypes.STRING(20), allowNull: false },
      progress: { type: DataTypes.DOUBLE, allowNull: false, defaultValue: 0 },
      message: { type: DataTypes.TEXT, allowNull: false, defaultValue: '' },
      result: { type: DataTypes.TEXT, allowNull: true },
      attempts: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      cancelRequested: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      holdRequested: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      priority: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      leaseUntil: { type: DataTypes.DATE(3), allowNull: true },
      workerId: { type: DataTypes.STRING(40), allowNull: true },
      startedAt: { type: DataTypes.DATE(3), allowNull: true },
      createdAt: moment(),
      updatedAt: moment(),
    },
    { ...common, tableName: 'jobs' },
  );
}

export function defineModels(sequelize: Sequelize): void {
  const common = settingsOf(sequelize);
  defineLessonModels(common);
  defineFilmModels(common);
  defineLogModels(sequelize);
  defineTeamModels(sequelize);
}
