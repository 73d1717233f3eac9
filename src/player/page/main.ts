import { lineOf } from '@/core/playing';
import { ProtocolClient } from '@/protocol/client';
import { BrowserStore } from './browser-store';
import { Band } from '../sound/band';
import { Conductor } from '../glass/conductor';
import { playedKinds } from './kinds';
import { PageHardware } from './page-hardware';
import { PlayerSession } from '../session/session';
import { Speaker } from '../sound/speaker';
import { Stage } from '../glass/stage';

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

async function start(): Promise<void> {
  const kept = await keepPage();
  const store = await BrowserStore.open();
  await navigator.storage.persist().catch(() => false);

  const open = (sha256: string) => store.open(sha256);
  const report = (message: string) => session.report(message);
  const stage = new Stage(part('stage'), open, report);
  const client = new ProtocolClient(location.origin);
  const conductor: Conductor = new Conductor(
    stage,
    () => session.serverNow(),
    (scene) => (document.body.dataset.scene = scene),
    report,
    undefined,
    () => session.tell(),
    (is) => (part('drill').hidden = !is),
  );
  const band: Band = new Band(new Speaker(open, report), () => session.serverNow(), report);
  const session: PlayerSession = new PlayerSession(
    client,
    store,
    {
      code(code) {
        part('code').textContent = code ?? '';
        document.body.dataset.pairing = code ? 'code' : '';
      },
      screen(screen) {
        part('name').textContent = part('identify-name').textContent = screen?.name ?? '';
        document.title = screen ? `${screen.name} · Lanternpost player` : 'Lanternpost player';
      },
      program(program) {
        conductor.play(program);
        band.play(program);
      },
      coming: (next) => conductor.follow(next),
      file: () => conductor.look(),
    },
    {
      software: lineOf(`browser ${navigator.userAgent}`, 120),
      playing: () => conductor.playing(),
      hardware: new PageHardware(part),
      kinds: playedKinds((type) => document.createElement('video').canPlayType(type)),
    },
  );
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
