/** The files that make a Debian box a player: a browser without anything around it that starts with the box, and the bridge to its device. */

export interface KioskWishes {
  /** The server's address, like https://signs.example.org. */
  readonly server: string;
  /** With an enrolment key it waits in the tray; without one it shows a code. */
  readonly enrol?: string | undefined;
  readonly serial?: string | undefined;
  /** The display's input where the box is plugged in; absent: not known. */
  readonly input?: string | undefined;
  readonly bridgePort: number;
  readonly bridgeToken: string;
  /** How the bridge is started: Node and this program, by their whole paths. */
  readonly node: string;
  readonly program: string;
}

export interface KioskFile {
  /** From the root of the box's file system, without the first slash. */
  readonly path: string;
  readonly mode: number;
  readonly text: string;
}

/** The user that the browser runs as; it may do nothing else. */
export const KIOSK_USER = 'lanternpost-kiosk';
/** What the box needs of Debian. */
export const KIOSK_PACKAGES = [
  ...['xserver-xorg', 'xinit', 'x11-xserver-utils', 'chromium', 'fonts-noto-core'],
  ...['ddcutil', 'v4l-utils', 'alsa-utils', 'imagemagick'],
];
const FOLDER = 'etc/lanternpost';

/** The player's address for a kiosk. What only the page may know is behind the #, which is sent to no server. */
export function playerAddress({ server, enrol, serial, bridgePort, bridgeToken }: KioskWishes): string {
  const address = new URL('/player', server);
  if (enrol) address.searchParams.set('enrol', enrol);
  if (enrol && serial) address.searchParams.set('serial', serial);
  address.hash = `bridge=${bridgePort}.${bridgeToken}`;
  return address.href;
}

export function kioskFiles(wishes: KioskWishes): KioskFile[] {
  const { server, bridgePort, bridgeToken, node, program, input } = wishes;
  const own = input === undefined ? [] : ['--input', input];
  return [
    {
      path: `${FOLDER}/kiosk.env`,
      // The address holds the bridge's token and maybe a key.
      mode: 0o600,
      text: `LANTERNPOST_PLAYER="${playerAddress(wishes)}"\n`,
    },
    { path: `${FOLDER}/bridge-token`, mode: 0o600, text: `${bridgeToken}\n` },
    { path: `${FOLDER}/kiosk-session`, mode: 0o755, text: SESSION },
    {
      path: 'etc/systemd/system/lanternpost-kiosk.service',
      mode: 0o644,
      text: unit(
        [
          'Description=Lanternpost player',
          'After=network.target lanternpost-bridge.service',
          'StartLimitIntervalSec=0',
        ],
        [
          ...[`User=${KIOSK_USER}`, 'PAMName=login', 'TTYPath=/dev/tty7', 'StandardInput=tty'],
          ...[`StateDirectory=${KIOSK_USER}`, `EnvironmentFile=/${FOLDER}/kiosk.env`],
          // Without a pointer; nothing may draw on it over a network.
          `ExecStart=/usr/bin/xinit /${FOLDER}/kiosk-session -- :0 vt7 -nocursor -nolisten tcp`,
          ...['Restart=always', 'RestartSec=3'],
        ],
        'graphical.target',
      ),
    },
    {
      path: 'etc/systemd/system/lanternpost-bridge.service',
      mode: 0o644,
      text: unit(
        ['Description=Bridge between the Lanternpost player and this device', 'StartLimitIntervalSec=0'],
        [
          'Environment=DISPLAY=:0',
          `ExecStart=${[node, program, 'bridge', '--server', server, '--port', String(bridgePort), '--token-file', `/${FOLDER}/bridge-token`, ...own].map(quoted).join(' ')}`,
          ...['Restart=always', 'RestartSec=3'],
        ],
        'multi-user.target',
      ),
    },
  ];
}

/** Keeps the display awake, lets the bridge look at it, and shows the player until the browser ends; then all is started again. */
const SESSION = `#!/bin/sh
# Made by "lanternpost kiosk". Starts the player; when the browser ends, systemd starts all of this again.
xset s off s noblank -dpms 2>/dev/null
xhost +si:localuser:root >/dev/null 2>&1
exec chromium --kiosk --user-data-dir="\${STATE_DIRECTORY:-$HOME}/browser" --no-first-run --noerrdialogs --auto-accept-camera-and-microphone-capture \\
  --disable-session-crashed-bubble --disable-infobars --disable-features=Translate --disable-quic \\
  --disable-component-update --disable-sync --password-store=basic \\
  --autoplay-policy=no-user-gesture-required --overscroll-history-navigation=0 --disable-pinch \\
  $LANTERNPOST_CHROMIUM_FLAGS "$LANTERNPOST_PLAYER"
`;

const unit = (head: readonly string[], service: readonly string[], wantedBy: string) =>
  ['[Unit]', ...head, '', '[Service]', ...service, '', '[Install]', `WantedBy=${wantedBy}`, ''].join('\n');

/** A word of a command as systemd takes it: there "%" and "$" would begin names of its own. */
function quoted(word: string): string {
  if (/[\n\r]/.test(word)) throw new Error('A line break can’t be part of this.');
  return `"${word.replace(/[\\"]/g, '\\$&').replaceAll('%', '%%').replaceAll('$', '$$$$')}"`;
}
