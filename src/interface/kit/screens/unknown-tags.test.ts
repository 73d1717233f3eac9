import { emptyPlan, type Plan } from '@/core/plan';
import { unknownTagsText } from './unknown-tags';

const plan: Plan = {
  ...emptyPlan('Line'),
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC', tags: ['quay', 'lang:no'] }],
  screens: [{ id: 'a', name: 'Hall', site: 'quay', width: 2, height: 1, tags: ['norwegian', 'finnish'] }],
};

test.each([
  ['norwegian or finish', 'No screen has the tag “finish”. Did you mean “finnish”?'],
  ['norwegian or zzz', 'No screen has the tag “zzz”.'],
  ['not norwegian and (quay or FINNISH)', null],
  ['lang:no and screen:a or site:quay or is:portrait', null],
  ['lang:sv', 'No screen has the tag “lang:sv”. Did you mean “lang:no”?'],
  ['all', null],
  ['norwegian or', null],
])('of "%s" each tag that is not known is named, with the nearest', (selector, text) => {
  expect(unknownTagsText(plan, selector)).toBe(text);
});
