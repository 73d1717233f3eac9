import { Drafts } from './drafts';

const DAY_MS = 86_400_000;

/** Storage as browsers have it, in memory. */
function storage(room = Infinity) {
  const entries = new Map<string, string>();
  return {
    get length() {
      return entries.size;
    },
    key: (i: number) => [...entries.keys()][i] ?? null,
    getItem: (key: string) => entries.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (value.length > room) throw new DOMException('full', 'QuotaExceededError');
      entries.set(key, value);
    },
    removeItem: (key: string) => void entries.delete(key),
  };
}

describe('drafts of forms', () => {
  it('are there again, for the person who wrote them, in the form in which they were written', () => {
    const shelf = storage();
    new Drafts(shelf, 'ida', () => 5).write('booking new', { name: 'Storm' });
    expect(new Drafts(shelf, 'ida', () => 9).read('booking new')).toEqual({ at: 5, values: { name: 'Storm' } });
    expect(new Drafts(shelf, 'ida', () => 9).read('booking b-1')).toBeNull();
    expect(new Drafts(shelf, 'jon', () => 9).read('booking new')).toBeNull();
  });

  it('are gone when they are dropped, and after thirty days', () => {
    const shelf = storage();
    const then = new Drafts(shelf, 'ida', () => 0);
    then.write('a', { name: '1' });
    then.write('b', { name: '2' });
    then.drop('a');
    expect(then.read('a')).toBeNull();
    expect(new Drafts(shelf, 'ida', () => 29 * DAY_MS).read('b')).not.toBeNull();
    expect(new Drafts(shelf, 'ida', () => 30 * DAY_MS).read('b')).toBeNull();
  });

  it('are gone when all of them was saved, and stay when more was written since', () => {
    const drafts = new Drafts(storage(), 'ida');
    drafts.write('a', { name: 'Storm', tags: ['quay'] });
    drafts.dropSaved('a', { name: 'Storm', tags: [], priority: 2 });
    expect(drafts.read('a')?.values).toEqual({ name: 'Storm', tags: ['quay'] });
    drafts.dropSaved('a', { name: 'Storm', tags: ['quay'], priority: 2 });
    expect(drafts.read('a')).toBeNull();
  });

  it('make room: the newest fifty stay, and nothing of other people goes', () => {
    const shelf = storage();
    let now = 1;
    new Drafts(shelf, 'jon', () => 1).write('his', { name: 'kept' });
    const drafts = new Drafts(shelf, 'ida', () => now);
    for (; now <= 60; now++) drafts.write(`form ${now}`, { name: String(now) });
    expect(shelf.length).toBe(51);
    expect(drafts.read('form 10')).toBeNull();
    expect(drafts.read('form 11')).not.toBeNull();
    expect(new Drafts(shelf, 'jon', () => now).read('his')).not.toBeNull();
  });

  it('are not kept where there is no room or no storage, and nothing breaks by it', () => {
    const full = new Drafts(storage(10), 'ida');
    full.write('a', { name: 'much too long' });
    expect(full.read('a')).toBeNull();
    const none = new Drafts(null, 'ida');
    none.write('a', { name: '1' });
    none.drop('a');
    expect(none.read('a')).toBeNull();
  });

  it.each(['{', '{"at":"x"}', '[]', 'null', '{"at":1}'])('read nothing into %s', (text) => {
    const shelf = storage();
    shelf.setItem('lanternpost.draft ida a', text);
    expect(new Drafts(shelf, 'ida', () => 2).read('a')).toBeNull();
  });
});
