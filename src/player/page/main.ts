import { lineOf, withFirings, type ProgramDocument } from '@/core/playing';
import { ProtocolClient } from '@/protocol/client';
import type { Target } from '@/protocol/schemas';
import { enrolmentIn, showMark } from './enrolment';
import { BridgedHardware, bridgeIn } from './bridged-hardware';
import { BrowserStore } from './browser-store';
import { Band } from '../sound/band';
import { Conductor } from '../glass/conductor';
import { Overlays } from '../glass/overlays';
import { drawWithin, type Around } from '../glass/scene';
import { Steps } from '../glass/steps';
import { Presses } from '../glass/presses';
import type { KeptFiring } from '../session/firings';
import { played } from './kinds';
import { PageHardware } from './page-hardware';
import { PlayerSession } from '../session/session';
import { Speaker } from '../sound/speaker';
import { OwnPage } from '../own/own-page';
import { Stage } from '../glass/stage';
import { showPart } from '../glass/wall-part';

const NEW = 'New player. In Lanternpost, open Screens and enter this code:';
const WAITING = 'New player. In Lanternpost, open Screens, Waiting players. Or enter this code:';

const nameOf = (screen: Target['screen'] | null) =>
  screen?.part ? `${screen.name} · row ${screen.part.row}, column ${screen.part.column}` : (screen?.name ?? '');

/** How long the browser took for the last way to an address; null where it doesn't tell. */
function timingsOf(address: string) {
  const entry = performance.getEntriesByName(address).at(-1) as PerformanceResourceTiming | undefined;
  if (!entry) return null;
  const { domainLookupStart, domainLookupEnd, connectStart, connectEnd, secureConnectionStart } = entry;
  return {
    name: domainLookupEnd - domainLookupStart,
    connect: (secureConnectionStart || connectEnd) - connectStart,
    tls: secureConnectionStart > 0 ? connectEnd - secureConnectionStart : null,
  };
}

const part = (id: string) => document.getElementById(id) as HTMLElement;

/** Has the service worker keep this page, so that it starts without a network; says why where it can't. */
async function keepPage(): Promise<{ ok: true } | { ok: false; message: string }> {
  try {
    await navigator.serviceWorker.register('/player/sw.js', { scope: '/player' });
    return { ok: true };
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return { ok: false, message: `The player’s page isn’t stored for a start without a network: ${why}` };
  }
}

/** What is played, what follows, and what was fired. */
interface Held {
  program: ProgramDocument | null;
  next: { readonly at: number; readonly program: ProgramDocument } | null;
  firings: readonly KeptFiring[];
}

async function start(): Promise<void> {
  const software = lineOf(`browser ${navigator.userAgent}`, 120);
  const kept = await keepPage();
  const store = await BrowserStore.open();
  await navigator.storage.persist().catch(() => false);

  const hardware = new PageHardware(part);
  const bridge = bridgeIn(location.hash);
  const bridged = bridge ? new BridgedHardware(hardware, bridge) : null;
  void bridged?.watch();
  const open = (sha256: string) => store.open(sha256);
  const report = (message: string) => session.report(message);
  const stage = new Stage(part('stage'), open, report);
  const client = new ProtocolClient(location.origin);
  const around: Around = {
    now: () => session.serverNow(),
    report,
    stage: (root) => stage.another(root),
  };
  const overlays = new Overlays(part('stage'), around);
  let shown: Target['screen'] | null = null;
  const steps = new Steps(
    () => session.serverNow(),
    () => play(),
  );
  hardware.isStepped = () => steps.isOn(programNow());
  const conductor: Conductor = new Conductor(
    stage,
    () => session.serverNow(),
    (scene) => (document.body.dataset.scene = scene),
    report,
    undefined,
    () => session.tell(),
    (is) => (part('drill').hidden = !is),
    drawWithin(around, true),
    steps.timeline,
  );
  const band: Band = new Band(new Speaker(open, report), () => session.serverNow(), report);
  const held: Held = { program: null, next: null, firings: [] };
  const programNow = () => held.program && withFirings(held.program, held.firings);
  const play = () => {
    const program = programNow();
    conductor.play(program);
    overlays.play(program);
    band.play(program);
  };
  const follow = () =>
    conductor.follow(held.next && { at: held.next.at, program: withFirings(held.next.program, held.firings) });
  const session: PlayerSession = new PlayerSession(
    client,
    store,
    {
      code(code, mark) {
        part('code').textContent = code ?? '';
        showMark(part('mark'), mark);
        part('pairing-words').textContent = mark ? WAITING : NEW;
        document.body.dataset.pairing = code ? 'code' : '';
      },
      screen(screen) {
        shown = screen;
        showPart(part('stage'), screen?.part);
        stage.isInStep = screen?.part !== undefined;
        part('name').textContent = part('identify-name').textContent = nameOf(screen);
        document.title = screen ? `${screen.name} · Lanternpost player` : 'Lanternpost player';
      },
      program(program) {
        held.program = program;
        play();
      },
      coming(next) {
        held.next = next;
        follow();
      },
      firings(firings) {
        held.firings = firings;
        play();
        follow();
      },
      file: () => conductor.look(),
    },
    {
      software,
      playing: () => conductor.playing(),
      hardware: bridged ?? hardware,
      enrolment: enrolmentIn(location.search, software),
      ...played((type) => document.createElement('video').canPlayType(type)),
    },
  );
  new OwnPage(part('own'), {
    hardware,
    screen: () => shown,
    facts: () => session.facts(),
    test: () => ({
      server: location.origin,
      isOnline: () => navigator.onLine,
      fetcher: (input, init) => fetch(input, init),
      client: shown ? client : null,
      timings: timingsOf,
      way: bridged ? () => bridged.way() : undefined,
    }),
  });
  new Presses(part('choice'), {
    program: () => held.program,
    firings: () => held.firings,
    press: (...pressed) => session.press(...pressed),
    // The displays of a wall have to stay together, so none of them is stepped.
    step: (...how) => shown?.part === undefined && steps.step(programNow(), ...how),
    isCovered: () => !part('own').hidden,
  });
  if (!kept.ok) session.report(kept.message);
  addEventListener('online', () => session.hurry());
  const clock = () => {
    part('clock').textContent = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' }).format(
      session.serverNow(),
    );
  };
  clock();
  setInterval(clock, 5000);
  await session.run();
}

start().catch((error: unknown) => {
  part('name').textContent = error instanceof Error ? error.message : String(error);
});
