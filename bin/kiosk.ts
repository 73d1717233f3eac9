import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chownSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { KIOSK_PACKAGES, KIOSK_USER, kioskFiles } from '@/bridge/kiosk';
import { options, type Command } from './options';

const usage = `kiosk --server URL [--enrol KEY [--serial NUMBER]] [--input ID] [--bridge-port 4190] [--folder FOLDER]
       Makes this Debian box a player: installs what it needs, and has the player and its bridge start with the box (as root).
       --enrol        an enrolment key of the server: the player waits in the tray instead of showing a code alone
       --serial       what it is called there; else the device's own serial number
       --input        the display’s input where this box is plugged in, such as hdmi-1: to switch back to it from another
       --folder       write the files there instead, and change nothing on this machine`;

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      {
        ...{ server: { type: 'string' }, enrol: { type: 'string' }, serial: { type: 'string' } },
        input: { type: 'string' },
        ...{ 'bridge-port': { type: 'string', default: '4190' }, folder: { type: 'string' } },
      },
      usage,
    );
    const bridgePort = Number(given['bridge-port']);
    if (
      !given.server ||
      !/^https?:$/.test(URL.canParse(given.server) ? new URL(given.server).protocol : '') ||
      !(bridgePort > 0 && bridgePort < 65_536)
    ) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    const root = resolve(given.folder ?? '/');
    if (root === '/' && process.getuid?.() !== 0)
      throw new Error('Run this as root, or write the files elsewhere with --folder.');
    const files = kioskFiles({
      ...{ server: new URL(given.server).origin, enrol: given.enrol, bridgePort },
      input: given.input,
      serial: given.serial ?? serialOf(),
      bridgeToken: tokenOf(join(root, 'etc/lanternpost/bridge-token')),
      node: process.execPath,
      program: resolve(dirname(fileURLToPath(import.meta.url)), '../bin/lanternpost.mjs'),
    });
    if (root === '/') prepare();
    for (const { path, mode, text } of files) write(join(root, path), mode, text);
    for (const { path } of files) console.log(`Written: ${join(root, path)}`);
    if (root !== '/') return 0;
    execFileSync('systemctl', ['daemon-reload'], { stdio: 'inherit' });
    execFileSync('systemctl', ['set-default', 'graphical.target'], { stdio: 'inherit' });
    execFileSync('systemctl', ['enable', '--now', 'lanternpost-bridge', 'lanternpost-kiosk'], { stdio: 'inherit' });
    console.log('The player starts now, and each time with this box.');
    return 0;
  },
};

/** Installs what is needed, and makes the browser's user. */
function prepare(): void {
  execFileSync('apt-get', ['update', '-qq'], { stdio: 'inherit' });
  execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...KIOSK_PACKAGES], {
    stdio: 'inherit',
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  try {
    execFileSync('id', [KIOSK_USER], { stdio: 'ignore' });
  } catch {
    execFileSync('useradd', ['--system', '--create-home', '--groups', 'video,audio,input', KIOSK_USER], {
      stdio: 'inherit',
    });
  }
}

/** Whole or not at all. */
function write(path: string, mode: number, text: string): void {
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(`${path}.new`, text, { mode });
  if (process.getuid?.() === 0) chownSync(`${path}.new`, 0, 0);
  renameSync(`${path}.new`, path);
}

/** The token that the box has already, so that a second run breaks nothing; else a new one. */
const tokenOf = (file: string) =>
  existsSync(file) ? readFileSync(file, 'utf8').trim() : randomBytes(32).toString('base64url');

function serialOf(): string | undefined {
  for (const path of ['/sys/class/dmi/id/product_serial', '/proc/device-tree/serial-number'])
    try {
      const text = readFileSync(path, 'utf8').replaceAll('\0', '').trim();
      if (text) return text.slice(0, 80);
    } catch {
      // This device has no such file.
    }
  return undefined;
}
