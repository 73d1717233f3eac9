import { kioskFiles, playerAddress } from './kiosk';

const wishes = {
  server: 'https://signs.example.org',
  bridgePort: 4190,
  bridgeToken: 'a-token-of-more-than-twenty-letters',
  node: '/usr/bin/node',
  program: '/opt/lantern post/bin/lanternpost.mjs',
};
const fileOf = (path: string, more = {}) => kioskFiles({ ...wishes, ...more }).find((one) => one.path.endsWith(path));

test('the player’s address has the key and the serial number, and the token where no server sees it', () => {
  const address = new URL(playerAddress({ ...wishes, enrol: 'a key&more', serial: 'SN "7"' }));
  expect([address.pathname, address.searchParams.get('enrol'), address.searchParams.get('serial')]).toEqual([
    '/player',
    'a key&more',
    'SN "7"',
  ]);
  expect(address.hash).toBe('#bridge=4190.a-token-of-more-than-twenty-letters');
});

test('only its owner reads what holds the token, and nothing of a key or a name ends a line or a quote', () => {
  const env = fileOf('kiosk.env', { enrol: 'x"\nExecStart=/bin/sh', serial: '%h $HOME' });
  expect([env?.mode, fileOf('bridge-token')?.mode]).toEqual([0o600, 0o600]);
  expect(env?.text.trim().split('\n')).toHaveLength(1);
  expect(env?.text).toMatch(/^LANTERNPOST_PLAYER="[^"]*"\n$/);
});

test('the units start again whatever happens, without a pointer and as a user of its own', () => {
  const kiosk = fileOf('kiosk.service')?.text ?? '';
  for (const line of ['Restart=always', 'User=lanternpost-kiosk', 'StartLimitIntervalSec=0'])
    expect(kiosk).toContain(line);
  expect(kiosk).toMatch(/ExecStart=.*-nocursor/);
  expect(fileOf('bridge.service', { server: 'https://signs.example.org/100%' })?.text).toContain(
    'ExecStart="/usr/bin/node" "/opt/lantern post/bin/lanternpost.mjs" "bridge" "--server" "https://signs.example.org/100%%" "--port" "4190"',
  );
  expect(fileOf('bridge.service', { input: 'hdmi-2' })?.text).toContain('"--input" "hdmi-2"\n');
  expect(() => fileOf('x', { program: 'a\nb' })).toThrow('A line break');
});
