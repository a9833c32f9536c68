import { z } from 'zod';
import { teacherText } from '@zest/core/words';

/** Names of the machine itself: an address of these leads everybody to their own device. */
const OWN_MACHINE = /^(localhost|127(\.\d+){3}|\[::1\]|0\.0\.0\.0|\[::\])$/;
export const isOwnMachine = (hostname: string): boolean => OWN_MACHINE.test(hostname);

const HOW = () => teacherText('rule.address');
const SCHEME = /^[a-z][a-z+.-]*:\/\//i;

/**
 * An address that others can open, as it is kept: scheme, name and port; null for one that is none,
 * or has more to it.
 */
export function readAddress(text: string): string | null {
  const whole = SCHEME.test(text.trim()) ? text.trim() : `http://${text.trim()}`;
  if (text.trim() === '' || !URL.canParse(whole)) return null;
  const { protocol, origin, pathname, search, hash, username } = new URL(whole);
  return /^https?:$/.test(protocol) && pathname === '/' && search + hash + username === ''
    ? origin
    : null;
}

/** The address of the installation, as an owner gives it; null takes it back. */
export const changeAddressSchema = z.strictObject({
  address: z
    .string()
    .max(200, { error: HOW })
    .transform((text, context) => {
      const address = readAddress(text);
      if (address === null) context.addIssue({ code: 'custom', message: HOW() });
      else if (isOwnMachine(new URL(address).hostname))
        context.addIssue({
          code: 'custom',
          message: teacherText('rule.own-device'),
        });
      return address ?? '';
    })
    .nullable(),
});

/** Where others open this installation. */
export const addressSchema = z.object({
  /** Null: nobody has said. */
  address: z.string().nullable(),
  /** It was given when the program was started, and cannot be changed here. */
  isFixed: z.boolean(),
  /** What this machine is called on its networks. */
  found: z.array(z.string()),
  /** Other machines are listened to, or a proxy stands in front. */
  isOpen: z.boolean(),
});
export type Address = z.infer<typeof addressSchema>;
