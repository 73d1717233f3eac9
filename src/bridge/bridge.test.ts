import { LinuxDevice } from './device';
import type { Machine } from './programs';
import { createBridge } from './server';

const TOKEN = 'a-token-of-more-than-twenty-letters';
const ORIGIN = 'https://signs.example.org';

/** A machine with these programs; `answers` is what each call writes, by its words. Calls that aren't listed fail. */
function machine(answers: Readonly<Record<string, string>>, files: Readonly<Record<string, string>> = {}) {
  const calls: string[] = [];
  const programs = new Set(Object.keys(answers).map((call) => call.split(' ')[0]));
  const made: Machine = {
    has: (program) => programs.has(program),
    run: (program, args) => {
      const call = [program, ...args].join(' ');
      calls.push(call);
      const answer = answers[call];
      return answer === undefined
        ? Promise.reject(new Error(`${call}: no such thing`))
        : Promise.resolve(Buffer.from(answer));
    },
    read: (path) => Promise.resolve(files[path] ?? null),
    exists: (path) => path in files,
  };
  return { machine: made, calls };
}

const DDC = {
  'ddcutil detect --brief': 'Display 1\n   I2C bus: /dev/i2c-4\n',
  'ddcutil setvcp 10 40': '',
  'ddcutil getvcp 10 --brief': 'VCP 10 C 40 100\n',
  'ddcutil setvcp 60 x12': '',
  'ddcutil getvcp 60 --brief': 'VCP 60 SNC x12\n',
  'ddcutil setvcp D6 4': '',
  'ddcutil getvcp D6 --brief': 'VCP D6 SNC x04\n',
};

function bridge(answers: Readonly<Record<string, string>>, files?: Readonly<Record<string, string>>) {
  const { machine: made, calls } = machine(answers, files);
  const app = createBridge(new LinuxDevice(made, 'hdmi-2'), { token: TOKEN, origin: ORIGIN });
  const ask = (path: string, headers: Record<string, string> = {}, body?: unknown) =>
    app.request(`http://127.0.0.1:4190${path}`, {
      ...(body === undefined ? {} : { method: 'POST', body: JSON.stringify(body) }),
      headers: { host: '127.0.0.1:4190', authorization: `Bearer ${TOKEN}`, ...headers },
    });
  return { ask, calls, app };
}

test('it says what the device can do, by what is installed and answers, and what it measures', async () => {
  const { ask } = bridge(
    { ...DDC, 'systemctl reboot': '', 'wpctl status': '' },
    {
      '/sys/class/thermal/thermal_zone0/temp': '48500\n',
      '/proc/meminfo': 'MemTotal:       4000000 kB\nMemFree: 1 kB\nMemAvailable:   1000000 kB\n',
      '/proc/device-tree/serial-number': 'SN-77\0',
    },
  );
  expect(await (await ask('/state')).json()).toEqual({
    can: ['restart', 'volume', 'brightness', 'power', 'input'],
    measured: { temperature: 48.5, memory: 0.75, brightness: 40, input: 'player', display: 'off', serial: 'SN-77' },
  });
});

test('a device with nothing of this says so', async () => {
  const { ask } = bridge({});
  expect(await (await ask('/state')).json()).toEqual({ can: [], measured: {} });
});

test.each([
  [{ kind: 'brightness', percent: 40 }, 'ddcutil setvcp 10 40'],
  [{ kind: 'power', isOn: false }, 'ddcutil setvcp D6 4'],
  [{ kind: 'input', input: 'hdmi-2' }, 'ddcutil setvcp 60 x12'],
  [{ kind: 'input', input: 'player' }, 'ddcutil setvcp 60 x12'],
])('%j is done', async (order, call) => {
  const { ask, calls } = bridge(DDC);
  expect((await ask('/do', {}, order)).status).toBe(204);
  expect(calls).toContain(call);
});

test.each([
  ['by its signal', { 'xset q': 'Monitor is Off\n', 'xset dpms force off': '' }, {}, 'xset dpms force off'],
  [
    'by its cable',
    {
      'cec-ctl --playback --to 0 --standby': '',
      'cec-ctl --to 0 --give-device-power-status': '\tpwr-state: to-standby (0x03)\n',
    },
    { '/dev/cec0': '' },
    'cec-ctl --playback --to 0 --standby',
  ],
])('a display is switched %s', async (_way, answers, files, call) => {
  const { ask, calls } = bridge(answers as never, files as never);
  expect((await ask('/do', {}, { kind: 'power', isOn: false })).status).toBe(204);
  expect(calls).toContain(call);
});

test('a display that doesn’t follow, or can’t be reached, is told in a sentence', async () => {
  const stays = bridge({ ...DDC, 'ddcutil getvcp D6 --brief': 'VCP D6 SNC x01\n' });
  const answer = await stays.ask('/do', {}, { kind: 'power', isOn: false });
  expect([answer.status, await answer.json()]).toEqual([
    500,
    { title: 'The display didn’t switch off. Check that it may be controlled by its cable or network.' },
  ]);
  const kept = bridge({ ...DDC, 'ddcutil getvcp 60 --brief': 'VCP 60 SNC x0f\n' });
  expect(await (await kept.ask('/do', {}, { kind: 'input', input: 'hdmi-2' })).json()).toEqual({
    title: 'The display didn’t switch its input.',
  });
  expect(await (await kept.ask('/do', {}, { kind: 'input', input: 'radar' })).json()).toEqual({
    title: expect.stringMatching(/^This display has no input “radar”. Its inputs are called .*hdmi-1, hdmi-2\.$/),
  });
  const { 'ddcutil setvcp 10 40': _, ...broken } = DDC;
  const failed = await bridge(broken).ask('/do', {}, { kind: 'brightness', percent: 40 });
  expect(await failed.json()).toEqual({ title: expect.stringMatching(/^ddcutil failed: /) });
});

test.each([
  ['what it can’t do', { kind: 'restart' }, 'This device can’t do “restart”.'],
  [
    'an order that makes no sense',
    { kind: 'brightness', percent: 400 },
    'This isn’t an order that a device can carry out.',
  ],
  ['a program of a stranger’s', { kind: 'run', program: 'rm' }, 'This isn’t an order that a device can carry out.'],
])('%s is refused', async (_what, order, title) => {
  const { ask, calls } = bridge(DDC);
  const answer = await ask('/do', {}, order);
  expect([answer.status, await answer.json()]).toEqual([422, { title }]);
  expect(calls.some((call) => call.includes('setvcp'))).toBe(false);
});

test('it tells the way to its own server, and to no other', async () => {
  const asked: string[] = [];
  const ways = {
    lookup: async (name: string) => (asked.push(name), '192.0.2.7'),
    connect: async () => undefined,
    secure: async () => new Date(),
  };
  const app = createBridge(new LinuxDevice(machine({}).machine), { token: TOKEN, origin: ORIGIN, ways });
  const headers = { host: '127.0.0.1:4190', authorization: `Bearer ${TOKEN}` };
  const answer = await app.request('http://127.0.0.1:4190/way?server=https://other.example.org', { headers });
  expect([((await answer.json()) as unknown[]).length, asked]).toEqual([3, ['signs.example.org']]);
});

describe('a stranger on its port', () => {
  test.each([
    ['without the token', { authorization: '' }, 401],
    ['with another token', { authorization: `Bearer ${TOKEN.replace('a', 'b')}` }, 401],
    ['a page of another origin that knows the token', { origin: 'https://other.example.org' }, 403],
    ['a name that leads here', { host: 'signs.attacker.example' }, 403],
  ])('%s gets nothing', async (_who, headers, status) => {
    const { ask, calls } = bridge(DDC);
    const answer = await ask('/do', headers as never, { kind: 'power', isOn: false });
    expect(answer.status).toBe(status);
    expect(answer.headers.get('access-control-allow-origin')).toBeNull();
    expect(calls).toEqual([]);
  });

  test('the player’s own page may ask, also before it sends its token', async () => {
    const { app, ask } = bridge(DDC);
    const asked = await app.request('http://127.0.0.1:4190/do', {
      method: 'OPTIONS',
      headers: { host: '127.0.0.1:4190', origin: ORIGIN, 'access-control-request-private-network': 'true' },
    });
    expect([asked.status, asked.headers.get('access-control-allow-private-network')]).toEqual([204, 'true']);
    const answer = await ask('/state', { origin: ORIGIN });
    expect([answer.status, answer.headers.get('access-control-allow-origin')]).toEqual([200, ORIGIN]);
  });
});
