import { Keys } from './keys';

function pressed() {
  const keys = new Keys();
  const done: string[] = [];
  const add = (pressed: string, name = pressed) =>
    keys.add({ keys: pressed, what: name, run: () => void done.push(name) });
  const press = (key: string, at = 0) => keys.follow(key, at) || keys.press(key, at);
  return { keys, done, add, press };
}

test('the second of two keys is never what it means alone', () => {
  const { done, add, press } = pressed();
  add('g n', 'go to Now');
  add('n', 'new booking');
  expect([press('g'), press('n'), press('n')]).toEqual([true, true, true]);
  expect(done).toEqual(['go to Now', 'new booking']);
});

test('a second key that leads nowhere is used up, and the first is forgotten', () => {
  const { done, add, press } = pressed();
  add('g n');
  add('x');
  press('g');
  expect(press('x')).toBe(true);
  expect(done).toEqual([]);
  press('x');
  expect(done).toEqual(['x']);
});

test('after three seconds the first key is forgotten', () => {
  const { done, add, press } = pressed();
  add('g n');
  add('n');
  press('g', 1000);
  press('n', 4001);
  press('g', 5000);
  press('n', 8000);
  expect(done).toEqual(['n', 'g n']);
});

test('who asked last has a key, until it is given back', () => {
  const { keys, done, add, press } = pressed();
  add('w', 'outer');
  const giveBack = add('w', 'inner');
  press('w');
  expect(keys.all().map(({ what }) => what)).toEqual(['inner']);
  giveBack();
  press('w');
  expect(done).toEqual(['inner', 'outer']);
});

test('a key without a meaning is for others', () => {
  const { add, press } = pressed();
  add('g n');
  expect(press('q')).toBe(false);
});
