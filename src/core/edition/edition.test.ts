import { readPlan, type Plan } from '../plan';
import { canonicalJson, compileEdition, sha256Hex, type ProgramDocument } from '.';

test('RFC 8785 section 3.2.2 and 3.2.3: the sample object in its canonical form (from memory)', () => {
  const sample = {
    numbers: [Number('333333333.33333329'), 1e30, 4.5, 2e-3, 1e-27],
    string: "\u20ac$\u000F\u000aA'\u0042\u0022\u005c\\\u0022/",
    literals: [null, true, false],
  };
  expect(canonicalJson(sample)).toBe(
    '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
  );
});

test('RFC 6234 section 8.5: test vectors of SHA-256 (from memory)', () => {
  expect(sha256Hex('abc')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  expect(sha256Hex('abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq')).toBe(
    '248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1',
  );
});

const document = {
  format: 'lanternpost/plan',
  version: 1,
  network: { name: 'N', backdrop: { media: 'flag' } },
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo', tags: ['quay'] }],
  screens: ['a', 'b', 'c'].map((id) => ({
    id,
    name: `Screen ${id}`,
    site: 'quay',
    width: 1920,
    height: 1080,
    tags: id === 'c' ? ['staff'] : [],
  })),
  media: ['flag', 'rota'].map((id) => ({
    id,
    name: id,
    kind: 'image',
    width: 10,
    height: 10,
    bytes: 5,
    added: '2026-01-01T00:00:00Z',
    sha256: id === 'flag' ? 'f'.repeat(64) : 'e'.repeat(64),
    type: 'image/png',
  })),
  bookings: [
    {
      id: 'rota',
      name: 'Rota',
      content: { media: 'rota' },
      where: 'staff',
      created: '2026-01-01T00:00:00Z',
      when: { clock: 'Atlantic/Reykjavik' },
    },
  ],
};

function compiled(change: (plan: Plan) => Plan = (plan) => plan) {
  const read = readPlan(document);
  if ('errors' in read) throw new Error(JSON.stringify(read.errors));
  const result = compileEdition(change(read.plan));
  if ('errors' in result) throw new Error(JSON.stringify(result.errors));
  return result;
}

test('screens with equal programs share one, and a program holds what its screen needs and no more', () => {
  const { programs, screens } = compiled();
  expect(screens.get('a')).toBe(screens.get('b'));
  expect(programs.size).toBe(2);
  const [a, c] = ['a', 'c'].map((id) => JSON.parse(programs.get(screens.get(id) ?? '') ?? '') as ProgramDocument);
  expect(Object.keys(a?.assets ?? {})).toEqual(['flag']);
  expect(Object.keys(c?.assets ?? {}).sort()).toEqual(['flag', 'rota']);
  expect(Object.keys(c?.zones ?? {})).toEqual(['Atlantic/Reykjavik', 'Europe/Oslo']);
});

test('a program is named by the hash of its canonical form', () => {
  for (const [hash, text] of compiled().programs) {
    expect(sha256Hex(text)).toBe(hash);
    expect(canonicalJson(JSON.parse(text))).toBe(text);
  }
});

test('names and what other screens are told do not touch a program', () => {
  const before = compiled().screens;
  const after = compiled((plan) => ({
    ...plan,
    screens: plan.screens.map((screen) => ({ ...screen, name: `${screen.name} anew` })),
    bookings: plan.bookings.map((booking) => ({ ...booking, name: 'Another', priority: 5 })),
  })).screens;
  expect(after.get('a')).toBe(before.get('a'));
  expect(after.get('c')).not.toBe(before.get('c'));
});

test('a file without bytes is refused where a program needs it', () => {
  const read = readPlan({
    ...document,
    media: document.media.map(({ sha256: _sha256, type: _type, ...rest }) => rest),
  });
  expect('plan' in read && compileEdition(read.plan)).toEqual({
    errors: [
      { path: '/media/0', message: expect.stringContaining('has no file yet') },
      { path: '/media/1', message: expect.stringContaining('has no file yet') },
    ],
  });
});
