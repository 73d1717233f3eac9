import type { Ability, Command } from '@/core/commands';
import type { BridgeState, WayStep } from '@/protocol/bridge';
import type { Report } from '@/protocol/schemas';
import type { Hardware } from '../hardware/hardware';
import type { PageHardware } from './page-hardware';

const ASK_EVERY_MS = 15_000;
/** A display's own bus is slow. */
const PATIENCE_MS = 30_000;
/** A picture of a device is as large as its display: the server takes so much. */
const MOST_BYTES = 1_000_000;

/** Where a bridge is, from the page's address (`#bridge=PORT.TOKEN`); null where it names none. */
export function bridgeIn(hash: string): { readonly url: string; readonly token: string } | null {
  const found = /^#bridge=(\d{1,5})\.([\w-]{20,})$/.exec(hash);
  return found ? { url: `http://127.0.0.1:${found[1]}`, token: found[2] ?? '' } : null;
}

/** A page with a bridge beside it: what the bridge can't do, the page does as it can. */
export class BridgedHardware implements Hardware {
  private known: BridgeState = { can: [], measured: {} };

  constructor(
    private readonly page: PageHardware,
    private readonly bridge: { readonly url: string; readonly token: string },
    private readonly fetcher: typeof fetch = (input, init) => fetch(input, init),
  ) {}

  /** Asks the bridge again and again what there is; what it said last stands while it is away. */
  async watch(wait = (ms: number) => new Promise<void>((done) => setTimeout(done, ms))): Promise<never> {
    for (;;) {
      await this.refresh();
      await wait(ASK_EVERY_MS);
    }
  }

  async refresh(): Promise<void> {
    try {
      this.known = readState(await (await this.ask('/state')).json());
    } catch {
      // It may start later than the page, or be gone: then only what the page can do is offered.
      this.known = { can: [], measured: {} };
    }
  }

  abilities(): readonly Ability[] {
    const { can } = this.known;
    const known = (['restart', 'brightness', 'input', 'power'] as const).filter((one) => can.includes(one));
    return [...this.page.abilities(), ...known];
  }

  state(): Report['hardware'] {
    return { ...this.page.state(), ...this.known.measured };
  }

  async carryOut(command: Command): Promise<void> {
    const { kind, percent, degrees, input } = command;
    if (kind === 'restart' || kind === 'brightness') return this.order({ kind, percent });
    if (kind === 'input') return this.order({ kind, input });
    if (kind === 'volume' && this.known.can.includes('volume')) return this.order({ kind, percent });
    if (kind === 'turn' && this.known.can.includes('turn')) return this.order({ kind, degrees });
    return this.page.carryOut(command);
  }

  readonly setPower = (isOn: boolean) => this.order({ kind: 'power', isOn });

  readonly picture = async () => {
    const own = await this.page.picture();
    if (!this.known.can.includes('picture')) return own;
    const bytes = new Uint8Array(await (await this.ask('/picture')).arrayBuffer());
    return bytes.length > MOST_BYTES ? own : { ...own, bytes };
  };

  /** The way to the server, step by step; null if the bridge doesn't know. */
  async way(): Promise<readonly WayStep[] | null> {
    try {
      return readWay(await (await this.ask('/way')).json());
    } catch {
      return null;
    }
  }

  private async order(order: object): Promise<void> {
    await this.ask('/do', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(order),
    });
  }

  private async ask(path: string, init: RequestInit = {}): Promise<Response> {
    const headers = { ...(init.headers as Record<string, string>), authorization: `Bearer ${this.bridge.token}` };
    const response = await this.fetcher(`${this.bridge.url}${path}`, {
      ...init,
      headers,
      cache: 'no-store',
      signal: AbortSignal.timeout(PATIENCE_MS),
    }).catch(() => {
      throw new Error('The bridge to the device doesn’t answer. Start the kiosk again.');
    });
    if (response.ok) return response;
    const { title } = (await response.json().catch(() => ({}))) as { title?: unknown };
    throw new Error(typeof title === 'string' ? title : `The bridge answered ${response.status}.`);
  }
}

/** What a bridge says, as far as it makes sense: a report with anything else in it would be refused whole. */
function readState(said: unknown): BridgeState {
  const { can, measured } = (said ?? {}) as { can?: unknown; measured?: Record<string, unknown> };
  const within = (value: unknown, least: number, most: number) =>
    typeof value === 'number' && value >= least && value <= most ? value : undefined;
  const line = (value: unknown) =>
    typeof value === 'string' ? value.replace(/[\p{Cc}\p{Cs}]/gu, '').slice(0, 80) : undefined;
  const { display } = measured ?? {};
  const values = {
    temperature: within(measured?.temperature, -100, 300),
    memory: within(measured?.memory, 0, 1),
    load: within(measured?.load, 0, 1e6),
    brightness: within(measured?.brightness, 0, 100),
    display: display === 'on' || display === 'off' ? display : undefined,
    input: line(measured?.input),
    serial: line(measured?.serial),
    firmware: line(measured?.firmware),
  };
  return {
    can: Array.isArray(can) ? (can.filter((one) => typeof one === 'string') as BridgeState['can']) : [],
    measured: Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined)),
  };
}

function readWay(said: unknown): readonly WayStep[] | null {
  if (!Array.isArray(said)) return null;
  const steps = said as readonly Partial<Record<keyof WayStep, unknown>>[];
  const isStep = (one: Partial<Record<keyof WayStep, unknown>> | null) =>
    typeof one?.name === 'string' && typeof one.isOk === 'boolean' && typeof one.words === 'string';
  return steps.every(isStep) ? (steps as readonly WayStep[]) : null;
}
