import { z } from 'zod';
import { saying } from '@zest/core/words';

export const signInSchema = z.strictObject({
  login: z
    .string()
    .trim()
    .min(1, saying('rule.login'))
    .max(80, saying('rule.most-characters', { most: 80 })),
  password: z
    .string()
    .min(1, saying('rule.password'))
    .max(200, saying('rule.most-characters', { most: 200 })),
});
export const makeOwnerSchema = z.strictObject({
  login: signInSchema.shape.login,
  password: z
    .string()
    .min(10, saying('rule.password-length'))
    .max(200, saying('rule.most-characters', { most: 200 })),
});
export const changePasswordSchema = z.strictObject({
  current: signInSchema.shape.password,
  next: makeOwnerSchema.shape.password,
});
/** A new password by a link that an owner gave. */
export const newPasswordSchema = z.strictObject({
  code: z.string().min(1).max(80),
  password: makeOwnerSchema.shape.password,
});
export const passwordLinkSchema = z.object({ code: z.string(), expiresAt: z.string() });
export const sessionSchema = z.object({
  /** The account signed in, or null. */
  user: z
    .object({
      id: z.string(),
      login: z.string(),
      role: z.enum(['viewer', 'helper', 'teacher', 'owner']),
    })
    .nullable(),
  /** No account exists yet: the first visit makes the owner's. */
  needsOwner: z.boolean(),
  /** One-click entry is offered. */
  demo: z.boolean(),
});
export type SignIn = z.infer<typeof signInSchema>;
export type MakeOwner = z.infer<typeof makeOwnerSchema>;
export type SessionInfo = z.infer<typeof sessionSchema>;
