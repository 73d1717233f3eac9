import { readFileSync } from 'node:fs';
import { GLOSSARY } from './glossary';

test.each(Object.entries(GLOSSARY))('"%s" means in the guide what the interface says', (word, meaning) => {
  const [row = ''] = readFileSync('docs/guide.md', 'utf8').match(new RegExp(`^\\| \\*\\*${word}\\*\\* .*$`, 'm')) ?? [];
  expect(row.split('|')[2]?.trim()).toBe(meaning);
});
