import { z } from 'zod';
import { nameSchema } from '@/core';

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

export const inviteSchema = z.object({ name: nameSchema, email: emailSchema });

/** Another network, and its first person. */
export const foundingSchema = inviteSchema.extend({ network: nameSchema });

/** What somebody who holds a link sends with it. */
export const joinSchema = z.object({ name: nameSchema, password: passwordSchema });

/**
 * What a key may be good for: `library` sends files there, and reads what is in it; `publish` reads and replaces the plan, and
 * publishes; `takeovers` fires those that are prepared, and clears them. */
export const RIGHTS = ['library', 'publish', 'takeovers'] as const;
export type Right = (typeof RIGHTS)[number];

export const keySchema = z.object({
  name: nameSchema,
  rights: z.array(z.enum(RIGHTS, 'There is no such right.')).min(1, 'A key has one right at least.'),
});

export const passwordChangeSchema = z
  .object({ current: enteredSchema, password: passwordSchema })
  .refine(({ current, password }) => current !== password, {
    path: ['password'],
    message: 'This is your password already: choose another.',
  });

export type SignIn = z.input<typeof signInSchema>;
export type FirstPerson = z.input<typeof firstPersonSchema>;
export type Invite = z.input<typeof inviteSchema>;
export type Join = z.input<typeof joinSchema>;
export type PasswordChange = z.input<typeof passwordChangeSchema>;
