import { hash } from '@node-rs/argon2';
import { spokenCode } from '@zest/core/results';
import { nanoid } from 'nanoid';
import { Op, QueryTypes, type Sequelize } from 'sequelize';
import { chance, shaOf } from './classes.ts';
import { User } from './models.ts';
import { PasswordLinkRow } from './team-models.ts';

/** 32 of 64 letters are 192 bits. */
const CODE_LENGTH = 32;
export const freshCode = () => nanoid(CODE_LENGTH);
const LINK_GOOD_FOR_MS = 2 * 86_400_000;

/** Ends every session of an account, on every device. */
async function endSessions(sequelize: Sequelize, userId: string): Promise<void> {
  await sequelize.query("DELETE FROM sessions WHERE JSON_VALUE(data, '$.userId') = ?", {
    replacements: [userId],
    type: QueryTypes.RAW,
  });
}

/**
 * Sets a password; whoever was signed in with the old one is out, and no link for a new one is good
 * any more.
 */
export async function setPassword(
  sequelize: Sequelize,
  user: User,
  password: string,
): Promise<void> {
  await user.update({ passwordHash: await hash(password) });
  await PasswordLinkRow.destroy({ where: { userId: user.id } });
  await endSessions(sequelize, user.id);
}

/**
 * The code of a link with which somebody sets a new password, once; an earlier one is good no more.
 */
export async function makePasswordLink(user: User): Promise<{ code: string; expiresAt: Date }> {
  const [code, expiresAt] = [freshCode(), new Date(Date.now() + LINK_GOOD_FOR_MS)];
  await PasswordLinkRow.destroy({ where: { userId: user.id } });
  await PasswordLinkRow.create({ codeSha: shaOf(code), userId: user.id, expiresAt });
  return { code, expiresAt };
}

/** Whose link it is; null once it was used or is too old. */
export async function userOfLink(code: string): Promise<User | null> {
  const link = await PasswordLinkRow.findOne({
    where: { codeSha: shaOf(code), expiresAt: { [Op.gt]: new Date() } },
  });
  const user = link && (await User.findByPk(link.userId));
  return user?.teamId ? user : null;
}

/** Three groups of six letters, 89 bits, easily copied by hand. */
const GROUPS = 3;

/**
 * Gives an account a made-up password, for whoever sits at the machine.
 * @throws with the names there are
 */
export async function drawPassword(sequelize: Sequelize, login: string): Promise<string> {
  const user = await User.findOne({ where: { login } });
  if (!user?.teamId) {
    const known = (
      await User.findAll({ where: { teamId: { [Op.ne]: null } }, order: [['login', 'ASC']] })
    ).map((one) => one.login);
    throw new Error(
      `Nobody here signs in as “${login}”. There ` +
        `${known.length === 0 ? 'is no account yet' : `are: ${known.join(', ')}`}.`,
    );
  }
  const password = Array.from({ length: GROUPS }, () => spokenCode(chance).toLowerCase()).join('-');
  await setPassword(sequelize, user, password);
  return password;
}
