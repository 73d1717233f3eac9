import * as z from 'zod';
import { nameSchema } from '@/core/plan';
import { RIGHTS, ROLES } from '@/core/roles';

/** What people type to come in. The forms in the browser check by these too. */

export const emailSchema = z
  .email('Write an e-mail address such as ida@example.org.')
  .max(200, 'An e-mail address has at most 200 characters.')
  .transform((email) => email.toLowerCase());
const passwordSchema = z
  .string()
  .min(10, 'A password has at least 10 characters.')
  .max(200, 'A password has at most 200 characters.');
const enteredSchema = z.string().min(1, 'Write your password.').max(200, 'A password has at most 200 characters.');

export const signInSchema = z.object({ email: emailSchema, password: enteredSchema });

export const firstPersonSchema = z.object({
  network: nameSchema,
  name: nameSchema,
  email: emailSchema,
  password: passwordSchema,
});

export const roleSchema = z.enum(ROLES, `Choose a role: ${ROLES.join(', ')}.`);
export const inviteSchema = z.object({ name: nameSchema, email: emailSchema, role: roleSchema });

/** Another network, and its first person. */
export const foundingSchema = inviteSchema.omit({ role: true }).extend({ network: nameSchema });

/** What a person sends when they accept a link. */
export const joinSchema = z.object({ name: nameSchema, password: passwordSchema });

export const keySchema = z.object({
  name: nameSchema,
  rights: z.array(z.enum(RIGHTS, 'There’s no such right.')).min(1, 'Tick at least one right.'),
});

export const passwordChangeSchema = z
  .object({ current: enteredSchema, password: passwordSchema })
  .refine(({ current, password }) => current !== password, {
    path: ['password'],
    message: 'This is your password already. Choose another.',
  });

export type SignIn = z.input<typeof signInSchema>;
export type FirstPerson = z.input<typeof firstPersonSchema>;
export type Invite = z.input<typeof inviteSchema>;
export type Join = z.input<typeof joinSchema>;
export type PasswordChange = z.input<typeof passwordChangeSchema>;
