import { z } from 'zod';
import { nameSchema } from '@/core';

/** What people type to come in. The forms in the browser check by these too. */

const emailSchema = z
  .email('Write an e-mail address such as ida@example.org.')
  .transform((email) => email.toLowerCase());
const passwordSchema = z
  .string()
  .min(10, 'A password has at least 10 characters.')
  .max(200, 'A password has at most 200 characters.');

export const signInSchema = z.object({
  email: emailSchema,
  password: z.string().min(1, 'Write your password.').max(200),
});

export const firstPersonSchema = z.object({
  network: nameSchema,
  name: nameSchema,
  email: emailSchema,
  password: passwordSchema,
});

export type SignIn = z.input<typeof signInSchema>;
export type FirstPerson = z.input<typeof firstPersonSchema>;
