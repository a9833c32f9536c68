import { bodies, routes, type AuditEntry, type Comment, type Member } from '@zest/contract';
import { hash } from '@node-rs/argon2';
import { nanoid } from 'nanoid';
import { Op, UniqueConstraintError, type Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import { freshCode, makePasswordLink } from '../db/accounts.ts';
import { shaOf } from '../db/classes.ts';
import { User } from '../db/models.ts';
import { AuditRow, CommentRow, InviteRow } from '../db/team-models.ts';
import { refuse } from '../errors.ts';
import type { Hub } from '../hub/hub.ts';
import { enter, slowSignIn } from './accounts.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';
import type { Limits } from './limits.ts';
import { whoElse } from './presence.ts';

const INVITED_FOR_MS = 7 * 86_400_000;
const MOST_AUDITED = 500;
const MOST_COMMENTS = 500;

const memberView = ({ id, login, role, createdAt }: User): Member => ({
  id,
  login,
  role,
  since: createdAt.toISOString(),
});

async function loginsOf(ids: Iterable<string>): Promise<Map<string, string>> {
  const users = await User.findAll({ where: { id: { [Op.in]: [...new Set(ids)] } } });
  return new Map(users.map(({ id, login }) => [id, login]));
}

/** @throws Refusal 404 for one who is not in the team, 422 for its owner */
async function memberOf(teamId: string, id: string): Promise<User> {
  const member = await User.findOne({ where: { id, teamId } });
  if (!member) throw refuse(404, 'not-found', teacherText('server.nobody'));
  if (member.role === 'owner') throw refuse(422, 'owner', teacherText('server.keeps-owner'));
  return member;
}

/**
 * Who is in a team, who may join it, what they did; who else is in a lesson, and what they say
 * about it.
 */
export function addTeamRoutes(
  route: AddRoute,
  sequelize: Sequelize,
  hub: Hub,
  limits: Limits,
): void {
  route(routes.team, async (_req, res, { teamId }) => {
    answer(
      res,
      'team',
      (await User.findAll({ where: { teamId }, order: [['createdAt', 'ASC']] })).map(memberView),
    );
  });
  route(routes.makeInvite, async (req, res, { teamId }) => {
    const { role } = readBody(bodies.makeInvite, req.body);
    const code = freshCode();
    const expiresAt = new Date(Date.now() + INVITED_FOR_MS);
    await InviteRow.create({ codeSha: shaOf(code), teamId, role, expiresAt });
    answer(res.status(201), 'makeInvite', { code, role, expiresAt: expiresAt.toISOString() });
  });
  route(
    routes.acceptInvite,
    async (req, res) => {
      const { code, login, password } = readBody(bodies.acceptInvite, req.body);
      const passwordHash = await hash(password);
      const user = await sequelize
        .transaction(async (transaction) => {
          const invite = await InviteRow.findOne({
            where: { codeSha: shaOf(code), usedAt: null, expiresAt: { [Op.gt]: new Date() } },
            lock: transaction.LOCK.UPDATE,
            transaction,
          });
          if (!invite) throw refuse(404, 'no-invite', teacherText('server.invite-old'));
          await invite.update({ usedAt: new Date() }, { transaction });
          const id = nanoid();
          return User.create(
            {
              id,
              login,
              passwordHash,
              role: invite.role,
              teamId: invite.role === 'owner' ? id : invite.teamId,
            },
            { transaction },
          );
        })
        .catch((error: unknown) => {
          if (error instanceof UniqueConstraintError)
            throw refuse(409, 'taken', teacherText('server.login-taken', { login }));
          throw error;
        });
      await enter(req, user.id);
      answer(res.status(201), 'acceptInvite', memberView(user));
    },
    slowSignIn(limits, 'invite'),
  );
  route(routes.changeMember, async (req, res, { teamId }) => {
    const { role } = readBody(bodies.changeMember, req.body);
    answer(
      res,
      'changeMember',
      memberView(await (await memberOf(teamId, String(req.params['memberId']))).update({ role })),
    );
  });
  route(routes.makePasswordLink, async (req, res, { teamId }) => {
    const { code, expiresAt } = await makePasswordLink(
      await memberOf(teamId, String(req.params['memberId'])),
    );
    answer(res.status(201), 'makePasswordLink', { code, expiresAt: expiresAt.toISOString() });
  });
  route(routes.removeMember, async (req, res, { teamId }) => {
    // What they made stays with the team; they get in no more.
    await (
      await memberOf(teamId, String(req.params['memberId']))
    ).update({ teamId: null, passwordHash: '' });
    res.status(204).end();
  });
  route(routes.audit, async (_req, res, { teamId }) => {
    const rows = await AuditRow.findAll({
      where: { teamId },
      order: [['id', 'DESC']],
      limit: MOST_AUDITED,
    });
    const logins = await loginsOf(rows.map(({ personId }) => personId));
    answer(
      res,
      'audit',
      rows.map(({ createdAt, personId, what, subject }): AuditEntry => ({
        at: createdAt.toISOString(),
        login: logins.get(personId) ?? 'somebody',
        what,
        subject,
      })),
    );
  });
  addCommentRoutes(route, hub);
}

/** Who is in a lesson, and what is said there. */
function addCommentRoutes(route: AddRoute, hub: Hub): void {
  route(routes.presence, async (req, res, { lesson, person }) => {
    answer(res, 'presence', {
      revision: lesson.revision,
      others: await whoElse(hub, lesson.id, {
        id: person.id,
        login: person.login,
        ...readBody(bodies.presence, req.body),
      }),
    });
  });

  const commentView = (row: CommentRow, login: string, personId: string): Comment => ({
    id: row.id,
    login,
    text: row.text,
    atMs: row.atMs,
    blockId: row.blockId,
    at: row.createdAt.toISOString(),
    done: row.doneAt !== null,
    isOwn: row.authorId === personId,
  });
  route(routes.comments, async (_req, res, { lesson, person }) => {
    const rows = await CommentRow.findAll({
      where: { lessonId: lesson.id },
      order: [['createdAt', 'ASC']],
    });
    const logins = await loginsOf(rows.map(({ authorId }) => authorId));
    answer(
      res,
      'comments',
      rows.map((row) => commentView(row, logins.get(row.authorId) ?? 'somebody', person.id)),
    );
  });
  route(routes.makeComment, async (req, res, { teamId, lesson, person }) => {
    const body = readBody(bodies.makeComment, req.body);
    if ((await CommentRow.count({ where: { lessonId: lesson.id } })) >= MOST_COMMENTS)
      throw refuse(422, 'full', teacherText('server.most-comments', { most: MOST_COMMENTS }));
    const row = await CommentRow.create({
      ...body,
      id: nanoid(),
      teamId,
      lessonId: lesson.id,
      authorId: person.id,
    });
    answer(res.status(201), 'makeComment', commentView(row, person.login, person.id));
  });
  route(routes.changeComment, async (req, res, { comment, person }) => {
    const { done } = readBody(bodies.changeComment, req.body);
    await comment.update({ doneAt: done ? new Date() : null });
    const logins = await loginsOf([comment.authorId]);
    answer(
      res,
      'changeComment',
      commentView(comment, logins.get(comment.authorId) ?? 'somebody', person.id),
    );
  });
  route(routes.deleteComment, async (_req, res, { comment }) => {
    await comment.destroy();
    res.status(204).end();
  });
}
