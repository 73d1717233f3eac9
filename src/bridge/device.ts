import { cpus } from 'node:os';
import { PLAYER_INPUT } from '@/core/commands';
import type { BridgeAbility, Measured } from '@/protocol/bridge';
import type { Machine } from './programs';

/** How a display is switched: by its cable's control line, by its own bus, or by taking its signal away. */
type Switch = 'cec' | 'ddc' | 'signal';

/** Codes of the VESA Monitor Control Command Set, from memory: brightness; power, of which 1 is on and 4 off; and the inputs. */
const BRIGHTNESS = '10';
const POWER = 'D6';
const INPUT = '60';
const INPUTS: Readonly<Record<string, string>> = {
  ...{ 'vga-1': '01', 'vga-2': '02', 'dvi-1': '03', 'dvi-2': '04' },
  ...{ 'displayport-1': '0f', 'displayport-2': '10', 'hdmi-1': '11', 'hdmi-2': '12' },
};
const ROTATIONS: Readonly<Record<number, string>> = { 0: 'normal', 90: 'right', 180: 'inverted', 270: 'left' };

/** A Linux box with a display, by what Debian has: ddcutil, cec-ctl, xset, xrandr, wpctl or amixer, systemctl. */
export class LinuxDevice {
  private known: ReadonlySet<BridgeAbility> = new Set();
  private way: Switch | null = null;

  constructor(
    private readonly machine: Machine,
    /** The display's input where this box is plugged in, by its usual id; absent: not known. */
    private readonly own?: string,
  ) {}

  /** Finds out what can be done here. A display may be plugged in later, so it is asked again now and then. */
  async look(): Promise<ReadonlySet<BridgeAbility>> {
    const { machine } = this;
    const ddc = machine.has('ddcutil') && /^Display \d/m.test(await this.text('ddcutil', ['detect', '--brief']));
    const x = machine.has('xset') && (await this.text('xset', ['q'])) !== '';
    this.way = machine.has('cec-ctl') && machine.exists('/dev/cec0') ? 'cec' : ddc ? 'ddc' : x ? 'signal' : null;
    const can: (readonly [BridgeAbility, boolean])[] = [
      ['restart', machine.has('systemctl')],
      ['volume', machine.has('wpctl') || machine.has('amixer')],
      ['brightness', ddc],
      ['turn', machine.has('xrandr') && (await this.output()) !== null],
      ['power', this.way !== null],
      ['input', ddc],
      ['picture', machine.has('grim') || (x && machine.has('import'))],
    ];
    this.known = new Set(can.flatMap(([ability, is]) => (is ? [ability] : [])));
    return this.known;
  }

  async measure(): Promise<Measured> {
    const { machine } = this;
    const temperatures = await Promise.all(
      Array.from({ length: 8 }, (_, i) => machine.read(`/sys/class/thermal/thermal_zone${i}/temp`)),
    );
    const hottest = Math.max(...temperatures.flatMap((text) => (text === null ? [] : [Number(text) / 1000])));
    const memory = (await machine.read('/proc/meminfo')) ?? '';
    const kilobytes = (name: string) => Number(new RegExp(`^${name}:\\s+(\\d+) kB`, 'm').exec(memory)?.[1] ?? NaN);
    const used = 1 - kilobytes('MemAvailable') / kilobytes('MemTotal');
    const load = Number.parseFloat((await machine.read('/proc/loadavg')) ?? '') / Math.max(1, cpus().length);
    const line = async (...paths: readonly string[]) => {
      for (const path of paths) {
        const text = (await machine.read(path))?.replaceAll('\0', '').trim();
        if (text) return text.slice(0, 80);
      }
      return undefined;
    };
    const serial = await line('/sys/class/dmi/id/product_serial', '/proc/device-tree/serial-number');
    const firmware = await line('/sys/class/dmi/id/bios_version', '/proc/device-tree/model');
    const brightness = this.known.has('brightness') ? await this.vcp(BRIGHTNESS) : null;
    const input = this.known.has('input') ? await this.inputNow() : null;
    const display = await this.isOn();
    return {
      ...(Number.isFinite(hottest) ? { temperature: hottest } : {}),
      ...(Number.isFinite(used) ? { memory: used } : {}),
      ...(Number.isFinite(load) ? { load } : {}),
      ...(brightness === null ? {} : { brightness }),
      ...(display === null ? {} : { display: display ? ('on' as const) : ('off' as const) }),
      ...(input === null ? {} : { input: input === this.own ? PLAYER_INPUT : input }),
      ...(serial === undefined ? {} : { serial }),
      ...(firmware === undefined ? {} : { firmware }),
    };
  }

  /** Throws with a sentence for people if it can't be done, or the display didn't follow. */
  async volume(percent: number): Promise<void> {
    if (this.machine.has('wpctl'))
      await this.do('wpctl', ['set-volume', '@DEFAULT_AUDIO_SINK@', String(percent / 100)]);
    else await this.do('amixer', ['-q', 'sset', 'Master', `${percent}%`]);
  }

  async brightness(percent: number): Promise<void> {
    await this.do('ddcutil', ['setvcp', BRIGHTNESS, String(percent)]);
    const now = await this.vcp(BRIGHTNESS);
    if (now !== null && Math.abs(now - percent) > 2) throw new Error('The display didn’t change its brightness.');
  }

  /** To an input by its usual id. Some displays say that they did, and stay: so it is asked after. */
  async input(id: string): Promise<void> {
    const wanted = id === PLAYER_INPUT ? this.own : id;
    if (wanted === undefined)
      throw new Error(
        'It isn’t known at which input this box is plugged in. Start its bridge with --input, or name the input.',
      );
    const code = Object.hasOwn(INPUTS, wanted) ? INPUTS[wanted] : undefined;
    if (code === undefined)
      throw new Error(
        `This display has no input “${wanted}”. Its inputs are called ${Object.keys(INPUTS).join(', ')}.`,
      );
    await this.do('ddcutil', ['setvcp', INPUT, `x${code}`]);
    const now = await this.inputNow();
    if (now !== null && now !== wanted) throw new Error('The display didn’t switch its input.');
  }

  async turn(degrees: number): Promise<void> {
    const output = await this.output();
    const rotation = ROTATIONS[degrees];
    if (output === null || rotation === undefined) throw new Error('No display is connected.');
    await this.do('xrandr', ['--output', output, '--rotate', rotation]);
  }

  async restart(): Promise<void> {
    await this.do('systemctl', ['reboot']);
  }

  async power(isOn: boolean): Promise<void> {
    if (this.way === 'cec') {
      await this.do('cec-ctl', ['--playback', '--to', '0', isOn ? '--image-view-on' : '--standby']);
      // It is shown again only if the display looks at this input.
      if (isOn) await this.do('cec-ctl', ['--active-source', 'phys-addr=1.0.0.0']).catch(() => undefined);
    } else if (this.way === 'ddc') await this.do('ddcutil', ['setvcp', POWER, isOn ? '1' : '4']);
    else if (this.way === 'signal') await this.do('xset', ['dpms', 'force', isOn ? 'on' : 'off']);
    else throw new Error('This display can’t be switched from here.');
    const now = await this.isOn();
    if (now !== null && now !== isOn)
      throw new Error(
        `The display didn’t switch ${isOn ? 'on' : 'off'}. Check that it may be controlled by its cable or network.`,
      );
  }

  /** A picture of all that is seen: JPEG. */
  async picture(): Promise<Buffer> {
    if (this.machine.has('grim')) return this.machine.run('grim', ['-t', 'jpeg', '-']);
    return this.machine.run('import', ['-silent', '-window', 'root', 'jpeg:-']);
  }

  /** Whether the display says that it is on; null if it doesn't say. */
  private async isOn(): Promise<boolean | null> {
    if (this.way === 'cec') {
      const said = await this.text('cec-ctl', ['--to', '0', '--give-device-power-status']);
      const state = /pwr-state: (on|standby|to-on|to-standby)/.exec(said)?.[1];
      return state === undefined ? null : state === 'on' || state === 'to-on';
    }
    if (this.way === 'ddc') {
      const said = await this.vcpCode(POWER);
      return said === null ? null : Number.parseInt(said, 16) === 1;
    }
    if (this.way === 'signal') {
      const said = /Monitor is (\w+)/.exec(await this.text('xset', ['q']))?.[1];
      return said === undefined ? null : said === 'On';
    }
    return null;
  }

  /** The input that the display shows, by its usual id; null if it doesn't say, or by no usual code. */
  private async inputNow(): Promise<string | null> {
    const said = (await this.vcpCode(INPUT))?.toLowerCase();
    return Object.keys(INPUTS).find((id) => INPUTS[id] === said) ?? null;
  }

  /** One of the values that a setting of the display may have, in two hexadecimal digits; null if it doesn't say. */
  private async vcpCode(code: string): Promise<string | null> {
    const said = await this.text('ddcutil', ['getvcp', code, '--brief']);
    return new RegExp(`^VCP ${code} SNC x(\\w\\w)`, 'm').exec(said)?.[1] ?? null;
  }

  /** A value of the display as percent of its greatest; null if it doesn't say. */
  private async vcp(code: string): Promise<number | null> {
    const said = await this.text('ddcutil', ['getvcp', code, '--brief']);
    const found = new RegExp(`^VCP ${code} C (\\d+) (\\d+)`, 'm').exec(said);
    return found ? Math.round((100 * Number(found[1])) / Math.max(1, Number(found[2]))) : null;
  }

  /** The name of the display's output. */
  private async output(): Promise<string | null> {
    return /^(\S+) connected/m.exec(await this.text('xrandr', ['--query']))?.[1] ?? null;
  }

  /** What a program says; nothing where it fails. */
  private async text(program: string, args: readonly string[]): Promise<string> {
    return this.machine.run(program, args).then(
      (output) => output.toString('utf8'),
      () => '',
    );
  }

  private async do(program: string, args: readonly string[]): Promise<void> {
    try {
      await this.machine.run(program, args);
    } catch (error) {
      const why = error instanceof Error ? (error.message.split('\n')[0] ?? '') : String(error);
      throw new Error(`${program} failed: ${why}`, { cause: error });
    }
  }
}
