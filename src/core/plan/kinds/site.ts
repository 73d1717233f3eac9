import * as z from 'zod';
import { hoursSchema, zoneSchema } from '../../when/schema';
import { contentSchema } from '../content-schema';
import { idSchema, nameSchema, tagsSchema } from '../fields';
import { defineKind } from '../kind';
import { content, hoursWords, plain, tags, text } from '../say';

/** A place with screens: its clock, its opening hours, its tags. */
const degrees = (what: string, most: number) => {
  const sentence = `${what} is a number of degrees from -${most} to ${most}.`;
  return z.number(sentence).min(-most, sentence).max(most, sentence);
};

export const siteSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  timeZone: zoneSchema,
  tags: tagsSchema.optional(),
  location: z.strictObject({ latitude: degrees('A latitude', 90), longitude: degrees('A longitude', 180) }).optional(),
  hours: hoursSchema.optional(),
  backdrop: contentSchema.optional(),
});

export type Site = z.infer<typeof siteSchema>;

export const site = defineKind({
  kind: 'site',
  collection: 'sites',
  noun: 'site',
  schema: siteSchema,
  fields: {
    name: text('name'),
    timeZone: plain('time zone'),
    tags,
    location: { label: 'location', say: ({ latitude, longitude }) => `${latitude}, ${longitude}` },
    hours: { label: 'opening hours', say: hoursWords },
    backdrop: content('backdrop'),
  },
  nameScope: () => 'network',
});
