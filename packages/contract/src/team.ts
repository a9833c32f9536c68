import { idSchema, LIMITS } from '@zest/core/lesson';
import { z } from 'zod';
import { saying } from '@zest/core/words';
import { makeOwnerSchema } from './account.ts';

/**
 * What somebody may do in a team, each all that those before may: look; film and tag takes; plan,
 * share and log; decide who is in it.
 */
export const roles = ['viewer', 'helper', 'teacher', 'owner'] as const;
export type Role = (typeof roles)[number];
export const mayAsMuchAs = (role: Role, least: Role): boolean =>
  roles.indexOf(role) >= roles.indexOf(least);

export const memberSchema = z.object({
  id: z.string(),
  login: z.string(),
  role: z.enum(roles),
  since: z.string(),
});
export type Member = z.infer<typeof memberSchema>;

/** Who joins by an invitation; `owner` begins a team of their own on this installation. */
export const inviteSchema = z.strictObject({ role: z.enum(roles) });
export const madeInviteSchema = z.object({
  code: z.string(),
  role: z.enum(roles),
  expiresAt: z.string(),
});
export const acceptInviteSchema = makeOwnerSchema.extend({ code: z.string().min(1).max(80) });
export const changeMemberSchema = z.strictObject({ role: z.enum(['viewer', 'helper', 'teacher']) });

/** Somebody else in the same lesson, and where. */
export const presenceSchema = z.strictObject({
  bench: z.string().max(20),
  blockId: idSchema.nullable(),
});
/** Who else is in a lesson, and its newest revision. */
export const presentSchema = z.object({
  revision: z.int(),
  others: z.array(
    z.object({ login: z.string(), bench: z.string(), blockId: z.string().nullable() }),
  ),
});

/** A remark at a moment of the video, or on a block, or on the whole lesson. */
export const makeCommentSchema = z.strictObject({
  text: z
    .string()
    .trim()
    .min(1, saying('rule.comment'))
    .max(LIMITS.line, saying('rule.most-characters', { most: LIMITS.line })),
  atMs: z.int().min(0).max(86_400_000).nullable(),
  blockId: idSchema.nullable(),
});
export const changeCommentSchema = z.strictObject({ done: z.boolean() });
export const commentSchema = z.object({
  id: z.string(),
  login: z.string(),
  text: z.string(),
  atMs: z.number().nullable(),
  blockId: z.string().nullable(),
  at: z.string(),
  done: z.boolean(),
  isOwn: z.boolean(),
});
export type Comment = z.infer<typeof commentSchema>;
export type MakeComment = z.infer<typeof makeCommentSchema>;

export const auditEntrySchema = z.object({
  at: z.string(),
  login: z.string(),
  what: z.string(),
  subject: z.string(),
});
export type AuditEntry = z.infer<typeof auditEntrySchema>;
