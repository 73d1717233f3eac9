import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { askAgain } from './ask-again';

test('an answer from before a change, still on its way when the change is told, is not what is shown', async () => {
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } });
  const answers: ((value: string) => void)[] = [];
  const observer = new QueryObserver(queries, {
    queryKey: ['library', 'seventh'],
    queryFn: () => new Promise<string>((resolve) => answers.push(resolve)),
  });
  const stop = observer.subscribe(() => undefined);
  const settled = () => new Promise((done) => setTimeout(done));
  await settled();
  const again = askAgain(queries, 'library');
  await settled();
  answers[0]?.('before');
  answers[1]?.('after');
  await again;
  expect([answers.length, observer.getCurrentResult().data]).toEqual([2, 'after']);

  // And where an answer is there already.
  const third = askAgain(queries, 'library');
  await settled();
  answers[2]?.('later');
  await third;
  expect([answers.length, observer.getCurrentResult().data]).toEqual([3, 'later']);
  stop();
  queries.clear();
});
