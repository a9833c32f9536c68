import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';

interface Migration {
  name: string;
  statements: string[];
  /** Takes it back; what only it could hold is lost. */
  back: string[];
}

const table = (name: string, body: string) =>
  `CREATE TABLE IF NOT EXISTS ${name} (${body}) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`;
const idType = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL';
const shaType = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';
const owner = `owner_id ${idType}, INDEX (owner_id), FOREIGN KEY (owner_id) REFERENCES users (id)`;
const created = 'created_at DATETIME(3) NOT NULL';

/**
 * Schema changes in order; what one that has shipped makes is never changed. Each statement may run
 * twice: a power cut can come between it and the note that it ran.
 */
const word = (length: number) => `VARCHAR(${length}) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`;
const scoreColumns = {
  score_key: word(400),
  score_title: word(200),
  score_measure: word(20),
  score_better: word(10),
  score_side: word(10),
  score_level: word(20),
  score_value: 'DOUBLE',
  score_seconds: 'DOUBLE',
};

const migrations: Migration[] = [
  {
    name: '0001-first-tables',
    back: ['DROP TABLE IF EXISTS shares, jobs, takes, lesson_revisions, lessons, sessions, users'],
    statements: [
      table(
        'users',
        `id ${idType} PRIMARY KEY, login VARCHAR(80) NOT NULL UNIQUE, password_hash VARCHAR(255) NOT NULL, ${created}`,
      ),
      table(
        'sessions',
        'sid VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY, expires DATETIME, data TEXT, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL, INDEX (expires)',
      ),
      table(
        'lessons',
        `id ${idType} PRIMARY KEY, ${owner}, revision INT NOT NULL, ${created}, deleted_at DATETIME(3)`,
      ),
      table(
        'lesson_revisions',
        `lesson_id ${idType}, revision INT NOT NULL, document LONGTEXT NOT NULL, ${created}, PRIMARY KEY (lesson_id, revision), FOREIGN KEY (lesson_id) REFERENCES lessons (id)`,
      ),
      table(
        'takes',
        `id ${idType} PRIMARY KEY, ${owner}, lesson_id ${idType}, block_id ${idType}, name VARCHAR(200) NOT NULL, source VARCHAR(20) NOT NULL, ${created},
         original_sha ${shaType}, working_sha ${shaType}, thumbs_sha ${shaType}, wave_sha ${shaType},
         frames INT NOT NULL DEFAULT 0, thumbs INT NOT NULL DEFAULT 0, has_sound BOOLEAN NOT NULL DEFAULT FALSE, fault TEXT,
         INDEX (lesson_id), FOREIGN KEY (lesson_id) REFERENCES lessons (id)`,
      ),
      table(
        'jobs',
        `id ${idType} PRIMARY KEY, ${owner}, kind VARCHAR(20) NOT NULL, subject_id ${idType}, input_hash ${shaType} NOT NULL, input LONGTEXT NOT NULL,
         state VARCHAR(20) NOT NULL, progress DOUBLE NOT NULL DEFAULT 0, message TEXT NOT NULL, result TEXT, attempts INT NOT NULL DEFAULT 0,
         cancel_requested BOOLEAN NOT NULL DEFAULT FALSE, lease_until DATETIME(3), worker_id VARCHAR(40), started_at DATETIME(3), ${created},
         updated_at DATETIME(3) NOT NULL, INDEX (state, created_at), INDEX (subject_id), INDEX (updated_at)`,
      ),
      table(
        'shares',
        `code ${idType} PRIMARY KEY, ${owner}, lesson_id ${idType}, revision INT NOT NULL, ${created}, revoked_at DATETIME(3), INDEX (lesson_id), FOREIGN KEY (lesson_id) REFERENCES lessons (id)`,
      ),
    ],
  },
  {
    name: '0002-series-and-cues',
    back: [
      'DROP TABLE IF EXISTS series, cue_entries',
      'ALTER TABLE lessons DROP COLUMN IF EXISTS archived_at, DROP COLUMN IF EXISTS is_template',
    ],
    statements: [
      'ALTER TABLE lessons ADD COLUMN IF NOT EXISTS archived_at DATETIME(3) NULL, ADD COLUMN IF NOT EXISTS is_template BOOLEAN NOT NULL DEFAULT FALSE',
      table(
        'series',
        `id ${idType} PRIMARY KEY, ${owner}, name VARCHAR(120) COLLATE utf8mb4_bin NOT NULL, revision INT NOT NULL, document LONGTEXT NOT NULL, ${created}, UNIQUE (owner_id, name)`,
      ),
      table(
        'cue_entries',
        `id ${idType} PRIMARY KEY, ${owner}, document TEXT NOT NULL, ${created}`,
      ),
    ],
  },
  {
    name: '0003-filming',
    back: [
      'DROP TABLE IF EXISTS performances',
      'ALTER TABLE takes DROP COLUMN IF EXISTS performance_id, DROP COLUMN IF EXISTS mark_start_ms, DROP COLUMN IF EXISTS mark_end_ms, DROP COLUMN IF EXISTS mark_rate, DROP COLUMN IF EXISTS reason, DROP COLUMN IF EXISTS note, DROP COLUMN IF EXISTS binned_at',
    ],
    statements: [
      table(
        'performances',
        `id ${idType} PRIMARY KEY, ${owner}, lesson_id ${idType}, block_id ${idType}, shot_id ${idType}, number INT NOT NULL, played_ms INT, ${created},
         INDEX (lesson_id, number), FOREIGN KEY (lesson_id) REFERENCES lessons (id)`,
      ),
      `ALTER TABLE takes ADD COLUMN IF NOT EXISTS performance_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD COLUMN IF NOT EXISTS mark_start_ms INT NULL,
       ADD COLUMN IF NOT EXISTS mark_end_ms INT NULL, ADD COLUMN IF NOT EXISTS mark_rate DOUBLE NULL, ADD COLUMN IF NOT EXISTS reason VARCHAR(40) NULL,
       ADD COLUMN IF NOT EXISTS note VARCHAR(400) NOT NULL DEFAULT '', ADD COLUMN IF NOT EXISTS binned_at DATETIME(3) NULL`,
    ],
  },
  {
    name: '0004-queue',
    back: ['ALTER TABLE jobs DROP COLUMN IF EXISTS hold_requested, DROP COLUMN IF EXISTS priority'],
    statements: [
      'ALTER TABLE jobs ADD COLUMN IF NOT EXISTS hold_requested BOOLEAN NOT NULL DEFAULT FALSE, ADD COLUMN IF NOT EXISTS priority INT NOT NULL DEFAULT 0',
    ],
  },
  {
    name: '0005-watched',
    back: [
      'ALTER TABLE takes DROP COLUMN IF EXISTS watched_sha, DROP COLUMN IF EXISTS watched_by, DROP COLUMN IF EXISTS said',
    ],
    statements: [
      `ALTER TABLE takes ADD COLUMN IF NOT EXISTS watched_sha ${shaType}, ADD COLUMN IF NOT EXISTS watched_by INT NULL, ADD COLUMN IF NOT EXISTS said MEDIUMTEXT NULL`,
    ],
  },
  {
    name: '0006-classes-and-log',
    back: [
      'DROP TABLE IF EXISTS erasures, log_entries, share_versions, student_devices, students',
      'DELETE FROM shares WHERE class_id IS NOT NULL',
      'ALTER TABLE shares DROP FOREIGN KEY IF EXISTS shares_class',
      'ALTER TABLE shares DROP INDEX IF EXISTS shares_spoken, DROP COLUMN IF EXISTS class_id, DROP COLUMN IF EXISTS spoken, DROP COLUMN IF EXISTS opens_at, DROP COLUMN IF EXISTS closes_at, DROP COLUMN IF EXISTS version',
      'DROP TABLE IF EXISTS classes',
    ],
    statements: [
      table(
        'classes',
        `id ${idType} PRIMARY KEY, ${owner}, code ${idType} UNIQUE, document TEXT NOT NULL, ${created}`,
      ),
      table(
        'students',
        `id ${idType} PRIMARY KEY, ${owner}, class_id ${idType}, code ${idType}, nickname VARCHAR(40) NOT NULL, team VARCHAR(40) NOT NULL DEFAULT '', language VARCHAR(35) NULL,
         hand VARCHAR(10) NULL, ${created}, UNIQUE (class_id, code), FOREIGN KEY (class_id) REFERENCES classes (id) ON DELETE CASCADE`,
      ),
      table(
        'student_devices',
        `token_sha ${shaType} PRIMARY KEY, student_id ${idType}, ${created}, INDEX (student_id), FOREIGN KEY (student_id) REFERENCES students (id) ON DELETE CASCADE`,
      ),
      `ALTER TABLE shares ADD COLUMN IF NOT EXISTS class_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD COLUMN IF NOT EXISTS spoken VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
       ADD COLUMN IF NOT EXISTS opens_at DATETIME(3) NULL, ADD COLUMN IF NOT EXISTS closes_at DATETIME(3) NULL, ADD COLUMN IF NOT EXISTS version INT NOT NULL DEFAULT 1,
       ADD CONSTRAINT shares_class FOREIGN KEY IF NOT EXISTS shares_class (class_id) REFERENCES classes (id) ON DELETE CASCADE, ADD UNIQUE INDEX IF NOT EXISTS shares_spoken (class_id, spoken)`,
      table(
        'share_versions',
        `code ${idType}, version INT NOT NULL, revision INT NOT NULL, ${created}, PRIMARY KEY (code, version), FOREIGN KEY (code) REFERENCES shares (code) ON DELETE CASCADE`,
      ),
      'INSERT IGNORE INTO share_versions (code, version, revision, created_at) SELECT code, 1, revision, created_at FROM shares',
      table(
        'log_entries',
        `id ${idType} PRIMARY KEY, ${owner}, class_id ${idType}, student_id ${idType}, lesson_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL, kind VARCHAR(20) NOT NULL,
         made_by VARCHAR(10) NOT NULL, at DATETIME(3) NOT NULL, body TEXT NOT NULL, ${created}, INDEX (class_id, at), INDEX (student_id, lesson_id), INDEX (at),
         FOREIGN KEY (student_id) REFERENCES students (id) ON DELETE CASCADE, FOREIGN KEY (class_id) REFERENCES classes (id) ON DELETE CASCADE`,
      ),
      table(
        'erasures',
        `id ${idType} PRIMARY KEY, ${owner}, what VARCHAR(40) NOT NULL, entries INT NOT NULL, ${created}`,
      ),
    ],
  },
  {
    name: '0007-team',
    back: [
      'DROP TABLE IF EXISTS audit, comments, invites',
      'ALTER TABLE lesson_revisions DROP COLUMN IF EXISTS author_id',
      'ALTER TABLE users DROP COLUMN IF EXISTS team_id, DROP COLUMN IF EXISTS role',
    ],
    statements: [
      `ALTER TABLE users ADD COLUMN IF NOT EXISTS team_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL, ADD COLUMN IF NOT EXISTS role VARCHAR(10) NOT NULL DEFAULT 'owner', ADD INDEX IF NOT EXISTS team_id (team_id)`,
      'UPDATE users SET team_id = id WHERE team_id IS NULL',
      'ALTER TABLE lesson_revisions ADD COLUMN IF NOT EXISTS author_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL',
      table(
        'invites',
        `code_sha ${shaType} PRIMARY KEY, ${owner}, role VARCHAR(10) NOT NULL, expires_at DATETIME(3) NOT NULL, used_at DATETIME(3) NULL, ${created}`,
      ),
      table(
        'comments',
        `id ${idType} PRIMARY KEY, ${owner}, lesson_id ${idType}, author_id ${idType}, text VARCHAR(400) NOT NULL, at_ms INT NULL, block_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
         done_at DATETIME(3) NULL, ${created}, INDEX (lesson_id), FOREIGN KEY (lesson_id) REFERENCES lessons (id)`,
      ),
      table(
        'audit',
        `id BIGINT AUTO_INCREMENT PRIMARY KEY, owner_id ${idType}, person_id ${idType}, what VARCHAR(120) NOT NULL, subject VARCHAR(120) NOT NULL, ${created}, INDEX (owner_id, id)`,
      ),
    ],
  },
  {
    name: '0008-keeper',
    back: ['ALTER TABLE lessons DROP COLUMN IF EXISTS keeper_id'],
    statements: [
      'ALTER TABLE lessons ADD COLUMN IF NOT EXISTS keeper_id VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL',
      'UPDATE lessons l SET keeper_id = COALESCE((SELECT r.author_id FROM lesson_revisions r WHERE r.lesson_id = l.id AND r.revision = 1), l.owner_id) WHERE keeper_id IS NULL',
    ],
  },
  {
    name: '0009-passwords-and-address',
    back: ['DROP TABLE IF EXISTS settings, password_links'],
    statements: [
      table('settings', 'name VARCHAR(40) PRIMARY KEY, value TEXT NOT NULL'),
      table(
        'password_links',
        `code_sha ${shaType} PRIMARY KEY, user_id ${idType}, expires_at DATETIME(3) NOT NULL, ${created}, INDEX (user_id), FOREIGN KEY (user_id) REFERENCES users (id) ON DELETE CASCADE`,
      ),
    ],
  },
  {
    name: '0010-renditions-and-page',
    back: [
      'ALTER TABLE students DROP COLUMN IF EXISTS page',
      'ALTER TABLE takes DROP COLUMN IF EXISTS renditions, DROP COLUMN IF EXISTS working_by',
    ],
    statements: [
      'ALTER TABLE takes ADD COLUMN IF NOT EXISTS renditions TEXT NULL, ADD COLUMN IF NOT EXISTS working_by INT NULL',
      "ALTER TABLE students ADD COLUMN IF NOT EXISTS page VARCHAR(80) NOT NULL DEFAULT ''",
    ],
  },
  {
    name: '0011-log-sums',
    back: [
      `ALTER TABLE log_entries DROP INDEX IF EXISTS log_of_lesson, DROP INDEX IF EXISTS log_of_class, DROP INDEX IF EXISTS log_kinds, DROP INDEX IF EXISTS log_scores, DROP COLUMN IF EXISTS changed_at, ${Object.keys(
        scoreColumns,
      )
        .map((name) => `DROP COLUMN IF EXISTS ${name}`)
        .join(', ')}`,
    ],
    statements: [
      // What is summed up stands in columns that the database fills from the entry itself.
      `ALTER TABLE log_entries ADD COLUMN IF NOT EXISTS changed_at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3) ON UPDATE CURRENT_TIMESTAMP(3), ${Object.entries(
        scoreColumns,
      )
        .map(
          ([name, type]) =>
            `ADD COLUMN IF NOT EXISTS ${name} ${type} AS (IF(kind = 'score', JSON_VALUE(body, '$.${name.slice('score_'.length)}'), NULL)) PERSISTENT`,
        )
        .join(', ')}`,
      // The last has all that sums take, in their order: the entries themselves are not read.
      'ALTER TABLE log_entries ADD INDEX IF NOT EXISTS log_of_lesson (class_id, lesson_id, at, id), ADD INDEX IF NOT EXISTS log_of_class (class_id, at, id), ADD INDEX IF NOT EXISTS log_kinds (class_id, kind, at, student_id), ADD INDEX IF NOT EXISTS log_scores (class_id, kind, student_id, score_key, score_side, score_level, at, score_value, score_seconds, score_measure, score_better, score_title)',
    ],
  },
  {
    name: '0012-damage',
    back: ['ALTER TABLE takes DROP COLUMN IF EXISTS damage'],
    statements: ['ALTER TABLE takes ADD COLUMN IF NOT EXISTS damage TEXT NULL'],
  },
  {
    name: '0013-large-copies-and-sound-tracks',
    back: [
      'ALTER TABLE takes DROP COLUMN IF EXISTS preview_sha, DROP COLUMN IF EXISTS width, DROP COLUMN IF EXISTS height, DROP COLUMN IF EXISTS sound_tracks, DROP COLUMN IF EXISTS sound_track',
    ],
    statements: [
      `ALTER TABLE takes ADD COLUMN IF NOT EXISTS preview_sha ${shaType} NULL, ADD COLUMN IF NOT EXISTS width INT NULL, ADD COLUMN IF NOT EXISTS height INT NULL, ADD COLUMN IF NOT EXISTS sound_tracks TEXT NULL, ADD COLUMN IF NOT EXISTS sound_track INT NOT NULL DEFAULT 0`,
    ],
  },
  {
    name: '0014-kept-long-enough',
    back: ['ALTER TABLE log_entries DROP INDEX IF EXISTS log_kept'],
    statements: ['ALTER TABLE log_entries ADD INDEX IF NOT EXISTS log_kept (class_id, created_at)'],
  },
];

/**
 * How far each migration has come; statements that change the schema cannot be taken back together.
 */
const STEPS = table(
  'migration_steps',
  'name VARCHAR(120) PRIMARY KEY, direction VARCHAR(4) NOT NULL, done INT NOT NULL',
);

function umzugOf(sequelize: Sequelize) {
  const run =
    (name: string, direction: 'up' | 'down', statements: readonly string[]) => async () => {
      const [under] = await sequelize.query<{ direction: string; done: number }>(
        'SELECT direction, done FROM migration_steps WHERE name = ?',
        { replacements: [name], type: QueryTypes.SELECT },
      );
      const note = (done: number) =>
        sequelize.query('REPLACE INTO migration_steps (name, direction, done) VALUES (?, ?, ?)', {
          replacements: [name, direction, done],
          type: QueryTypes.RAW,
        });
      const first = under?.direction === direction ? under.done : 0;
      // Which way it goes is known before anything has changed.
      if (first === 0) await note(0);
      for (const [i, sql] of statements.entries()) {
        if (i < first) continue;
        await sequelize.query(sql, { type: QueryTypes.RAW });
        await note(i + 1);
      }
    };
  return new Umzug({
    migrations: migrations.map(({ name, statements, back }) => ({
      name,
      up: run(name, 'up', statements),
      down: run(name, 'down', back),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  });
}

const LOCK_S = 600;

/**
 * Brings the database to the newest schema. Of several programs that start at a time one does, and
 * the others wait for it.
 */
export async function migrate(sequelize: Sequelize): Promise<void> {
  // A lock is its connection's.
  await sequelize.transaction(async (transaction) => {
    const ask = (sql: string) =>
      sequelize.query<{ done: number | null }>(sql, { type: QueryTypes.SELECT, transaction });
    const [got] = await ask(`SELECT GET_LOCK(CONCAT('zest ', DATABASE()), ${LOCK_S}) AS done`);
    if (got?.done !== 1)
      throw new Error('Another program has been changing the database for ten minutes. Try again.');
    try {
      await bringUp(sequelize);
    } finally {
      await ask("SELECT RELEASE_LOCK(CONCAT('zest ', DATABASE())) AS done");
    }
  });
}

async function bringUp(sequelize: Sequelize): Promise<void> {
  const umzug = umzugOf(sequelize);
  // Sees to it that the list is there.
  await umzug.executed();
  await sequelize.query(STEPS);
  // What was being taken back when the power went is made anew.
  await sequelize.query(
    "DELETE FROM migrations WHERE name IN (SELECT name FROM migration_steps WHERE direction = 'down')",
  );
  await umzug.up();
}

/**
 * Takes migrations back, newest first, until the one named is the newest; what only the later ones
 * could hold is lost.
 * @throws Error for a name there is not
 */
export async function migrateBackTo(sequelize: Sequelize, name: string): Promise<void> {
  const later = migrations.findIndex((migration) => migration.name === name) + 1;
  if (later === 0)
    throw new Error(
      `There is no migration ${name}. There are: ${migrations.map((migration) => migration.name).join(', ')}.`,
    );
  const next = migrations[later];
  const umzug = umzugOf(sequelize);
  if (!next || !(await umzug.executed()).some((done) => done.name === next.name)) return;
  await sequelize.query(STEPS);
  await umzug.down({ to: next.name });
}
