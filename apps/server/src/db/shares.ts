import { nanoid } from 'nanoid';
import type { Sequelize } from 'sequelize';
import { withFreeCode } from './classes.ts';
import { ShareVersionRow } from './log-models.ts';
import { ShareRow } from './models.ts';

/** Characters of a share code: 24 of 64 letters are 144 bits, not to be guessed. */
const CODE_LENGTH = 24;

type NewShare = Pick<
  ShareRow,
  'teamId' | 'lessonId' | 'revision' | 'classId' | 'opensAt' | 'closesAt'
>;

/** Makes a link to a revision; one for a class gets a code to be read out as well. */
export function createShare(sequelize: Sequelize, share: NewShare): Promise<ShareRow> {
  const make = (spoken: string | null) =>
    sequelize.transaction(async (transaction) => {
      const row = await ShareRow.create(
        { ...share, code: nanoid(CODE_LENGTH), spoken },
        { transaction },
      );
      await ShareVersionRow.create(
        { code: row.code, version: 1, revision: row.revision },
        { transaction },
      );
      return row;
    });
  return share.classId === null ? make(null) : withFreeCode(make);
}

/**
 * Shows another revision of the lesson from here on; the ones before stay for whoever is in the
 * middle of them.
 */
export async function renewShare(
  sequelize: Sequelize,
  share: ShareRow,
  revision: number,
): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await share.reload({ lock: transaction.LOCK.UPDATE, transaction });
    if (share.revision === revision) return;
    await share.update({ revision, version: share.version + 1 }, { transaction });
    await ShareVersionRow.create(
      { code: share.code, version: share.version, revision },
      { transaction },
    );
  });
}
