import { redirect } from 'next/navigation';
import { done } from '@/core/refusal';
import { answered } from './answered';

const goingTo = (path: string) => Promise.resolve().then((): never => redirect(path));

test('an answer is handed on, a cut line is told, and who is sent elsewhere goes', async () => {
  expect(await answered(Promise.resolve(done(7)))).toEqual({ ok: true, value: 7 });
  expect(await answered(Promise.reject(new TypeError('Failed to fetch')))).toMatchObject({
    ok: false,
    message: expect.stringContaining('The server didn’t answer.'),
  });
  await expect(answered(goingTo('/'))).rejects.toMatchObject({ digest: expect.stringContaining('NEXT_REDIRECT') });
});
