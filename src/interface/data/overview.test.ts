import type { ScreenOverview } from '@/services/health';
import { withNews } from './overview';

const row = (id: string, temperature: number) => ({ id, temperature }) as ScreenOverview;

test('news are put into what is there; those that follow something else are all there is; without any it is the same', () => {
  const first = withNews(undefined, { version: 'a', from: null, rows: [row('hall', 40), row('deck', 30)], gone: [] });
  expect(withNews(first, { version: 'a', from: 'a', rows: [], gone: [] })).toBe(first);
  const next = withNews(first, { version: 'b', from: 'a', rows: [row('hall', 50)], gone: ['deck'] });
  expect([next.version, [...next.screens.values()]]).toEqual(['b', [row('hall', 50)]]);
  const anew = withNews(first, { version: 'c', from: null, rows: [row('quay', 1)], gone: [] });
  expect([...anew.screens.keys()]).toEqual(['quay']);
});
