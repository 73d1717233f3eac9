import { ACTS } from '@/services/people/acts';
import { agentName, removalSentence, trailSentence } from './words';

// Two user agents as these browsers sent them on this machine's kind of system; from memory.
const FIREFOX = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';
const CHROME =
  'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36';

test.each([
  [FIREFOX, 'Firefox on Linux'],
  [CHROME, 'Chrome on Windows'],
  ['simulated players', 'simulated players'],
  ['x'.repeat(300), 'x'.repeat(40)],
  [null, 'a program that does not say its name'],
])('%p is called %p', (agent, name) => {
  expect(agentName(agent)).toBe(name);
});

test('every act is a sentence that names who did it', () => {
  for (const act of ACTS) {
    const line = { id: 1, at: '', address: null, act, about: 'Una (una@example.org)' };
    expect(trailSentence({ ...line, by: 'Ida' })).toMatch(/^Ida [a-z]/);
    expect(trailSentence({ ...line, by: null })).toMatch(/^(The command line|A cue was) [a-z]/);
  }
  const ended = { id: 1, at: '', address: null, act: 'sessions-ended' as const, by: 'Ida' };
  expect(trailSentence({ ...ended, about: 'Otto' })).toBe('Ida logged Otto out everywhere');
  expect(trailSentence({ ...ended, about: null })).toBe('Ida logged out another window');
});

test.each([
  [{ sessions: 0, feeds: 0 }, 'These end at once: the links that they gave out and their keys.'],
  [{ sessions: 1, feeds: 0 }, 'These end at once: 1 open window, the links that they gave out and their keys.'],
  [
    { sessions: 2, feeds: 1 },
    'These end at once: 2 open windows, 1 calendar feed, the links that they gave out and their keys.',
  ],
])('a removal of %p says what ends', (person, sentence) => {
  expect(removalSentence(person)).toBe(`${sentence} What they did keeps their name.`);
});
