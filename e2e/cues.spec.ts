import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { forecastAt, screenProgram } from '@/core/forecast';
import { atThePier, shownAt } from './support/pier';
import { booked, draft, key, ternholm } from './support/plan';
import { pick, server } from './support/session';
import { expect, test } from './support/test';

/** Cues, from the hand that fires them to the glass: a board on a phone, keys and fingers at the screen, programs. */
let page: Page;
let player: Page;
let phone: Page | undefined;
atThePier((pier) => ({ page, player } = pier));

const HERE = 'screen:pier-end';
const stage = () => player.locator('#stage');

test.afterAll(() => phone?.context().close());

async function publish(): Promise<void> {
  const { publishEdition } = await import('@/services/editions');
  const { lastChange } = await import('@/services/plan');
  const actor = await ternholm();
  await publishEdition(actor, await lastChange(actor.networkId));
}

/** What the forecast says of the pier at an instant, with all that was fired. */
async function due(at: number): Promise<string | undefined> {
  const { firingsWithin } = await import('@/services/cues');
  const { networkId } = await ternholm();
  const firings = await firingsWithin(networkId, at - 3_600_000, at + 1);
  return forecastAt(screenProgram(await draft(), 'pier-end', firings), at).play?.media;
}

test('a button on a phone that greets for 30 s, in ten acts', async ({ browser }) => {
  let acts = 0;
  const act = async (done: Promise<unknown>) => {
    acts++;
    await done;
  };
  await act(page.getByRole('button', { name: 'Ida', exact: true }).click());
  await act(page.getByRole('menuitem', { name: 'Boards' }).click());
  await act(page.getByRole('button', { name: 'Add a button', exact: true }).first().click());
  const sheet = page.getByRole('dialog');
  await act(sheet.getByLabel('Name', { exact: true }).fill('Greeting'));
  await act(pick(sheet.getByRole('combobox', { name: 'Shows' }), 'media:route-map', 'Route map'));
  await act(sheet.getByRole('combobox', { name: 'Where' }).fill('pier-end'));
  await expect(sheet.getByText('1 screen', { exact: false })).toBeVisible();
  await expect(sheet.getByLabel('Lasts')).toHaveValue('30 s');
  await act(sheet.getByRole('button', { name: 'Add it' }).click());
  // What it opens on a phone is offered at once.
  const links = page.getByRole('dialog', { name: 'on a phone', exact: false });
  await links.getByLabel('For whom or where').fill('Steward');
  await act(links.getByLabel('For whom or where').press('Enter'));
  await expect(links.getByRole('img', { name: 'QR code of the link for Steward' })).toBeVisible();
  const address = await links.getByLabel('Link to the board').inputValue();
  await page.keyboard.press('Escape');
  await act(page.getByTestId('docket').click());
  await act(page.getByRole('button', { name: /^Publish edition/ }).click());
  expect(acts).toBeLessThanOrEqual(10);
  await expect(page.getByTestId('docket')).not.toContainText('change');

  const context: BrowserContext = await browser.newContext({ viewport: { width: 390, height: 780 }, hasTouch: true });
  const own = (phone = await context.newPage());
  await own.goto(address);
  const button = own.getByRole('button', { name: /^Greeting/ });
  await expect(button).toContainText('1 screen, 30 s');
  // Its files are on the player, which has the program with the booking that waits.
  await expect
    .poll(async () =>
      (await import('@/services/screens'))
        .screenStatuses(await ternholm())
        .then((list) => list.find(({ id }) => id === 'pier-end')?.state),
    )
    .toBe('lit');
  const pressed = Date.now();
  await button.tap();
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  expect((await shownAt(player, 'route-map')) - pressed).toBeLessThan(2000);
  expect(await due(Date.now())).toBe('route-map');
  await expect(own.getByRole('timer')).toContainText('left');
  await page.goto(server('/'));
  const tile = page.locator('[data-screen="pier-end"]');
  await expect(tile).toHaveAccessibleName(/Route map/);
  await tile.click();
  await expect(page.getByTestId('why')).toContainText('because Steward, on “Stewards”, fired “Greeting”');
  await expect(page.getByRole('button', { name: 'End Greeting here' })).toBeVisible();
  await page.goto(server('/cues'));
  await expect(page.getByText('Steward, on “Stewards”')).toBeVisible();
  await own.getByRole('button', { name: 'End Greeting' }).tap();
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  expect(await due(Date.now())).toBe('line-flag');
  await expect(own.getByRole('timer')).toHaveCount(0);
});

test('at the screen a key chooses the television, and another one the way back; without a network too', async () => {
  // The sample network has both keys; here they bring something, too.
  await booked('tv', {
    ...{ name: 'Television', where: HERE, priority: 4, when: {}, cue: 'mess-television', forMs: 600_000 },
    content: { media: 'map-tall' },
  });
  await publish();
  await expect(async () => {
    await player.keyboard.press('2');
    await expect(stage()).toHaveAttribute('data-media', 'map-tall', { timeout: 1000 });
  }).toPass();
  await expect(player.locator('#choice')).toContainText('2Mess television');
  await expect(player.locator('#choice')).toContainText('1Our programme');
  await player.context().setOffline(true);
  await player.keyboard.press('1');
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await player.keyboard.press('2');
  await expect(stage()).toHaveAttribute('data-media', 'map-tall');
  // Started again without a network it knows what was chosen.
  await player.reload();
  await expect(stage()).toHaveAttribute('data-media', 'map-tall');
  await player.context().setOffline(false);
  await page.goto(server('/cues'));
  await expect(page.getByText('Pier end, by key').first()).toBeVisible();
  await expect.poll(() => due(Date.now())).toBe('map-tall');
  // The operator ends it from afar.
  const { fireCue } = await import('@/services/cues');
  await fireCue(await ternholm(), { cue: 'mess-television', where: HERE, end: true });
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
});

test('fingers on a touch panel: several at once, each shown at once, each firing what its zone says', async () => {
  const { edit } = await import('@/services/plan');
  const zone = (id: string, x: number, cue: string) => ({
    ...{ id, x, y: 0, width: 960, height: 1080, content: { media: 'line-flag' } },
    touch: { cue },
  });
  await edit(await ternholm(), [
    { kind: 'cue', id: 'left', add: { name: 'Left' } },
    { kind: 'cue', id: 'right', add: { name: 'Right' } },
    {
      kind: 'layout',
      id: 'kiosk',
      add: { name: 'Kiosk', width: 1920, height: 1080, zones: [zone('a', 0, 'left'), zone('b', 960, 'right')] },
    },
    { kind: 'screen', id: 'pier-end', set: { backdrop: { layout: 'kiosk' } } },
  ]);
  const fired = { where: HERE, when: {}, forMs: 2000 };
  await booked('left', { ...fired, name: 'Left', priority: 3, cue: 'left', content: { media: 'map-tall' } });
  await booked('right', { ...fired, name: 'Right', priority: 5, cue: 'right', content: { media: 'route-map' } });
  await publish();
  await expect(stage()).toHaveAttribute('data-media', 'kiosk');
  const took = await player.evaluate(
    () =>
      new Promise<number>((seen) => {
        const began = performance.now();
        const touch = (x: number, pointerId: number) =>
          window.dispatchEvent(
            new PointerEvent('pointerdown', { clientX: x, clientY: 300, pointerId, isPrimary: pointerId === 1 }),
          );
        touch(200, 1);
        touch(700, 2);
        const look = () =>
          document.querySelectorAll('.zone.pressed').length === 2
            ? seen(performance.now() - began)
            : requestAnimationFrame(look);
        look();
      }),
  );
  expect(took).toBeLessThan(100);
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  await expect(stage()).toHaveAttribute('data-media', 'kiosk');
  const { lastFired } = await import('@/services/cues');
  await expect
    .poll(async () =>
      (await lastFired(await ternholm()))
        .slice(0, 2)
        .map(({ cue, by }) => `${cue}, ${by}`)
        .sort(),
    )
    .toEqual(['left, Pier end, by touch', 'right, Pier end, by touch']);
});

test('a program fires with a key that may do this and nothing else, or by an address alone', async ({ request }) => {
  const cues = await key(['cues']);
  const fire = (headers: Record<string, string>, data: object) => request.post(server('/api/cues'), { headers, data });
  expect((await fire(await key(['commands']), { cue: 'left' })).status()).toBe(403);
  expect((await request.post(server('/api/commands'), { headers: cues, data: {} })).status()).toBe(403);
  const once = await fire({ ...cues, 'idempotency-key': 'alarm-1' }, { cue: 'left', where: HERE });
  const again = await fire({ ...cues, 'idempotency-key': 'alarm-1' }, { cue: 'left', where: HERE });
  expect(await again.json()).toEqual(await once.json());
  await expect(stage()).toHaveAttribute('data-media', 'map-tall');
  await expect(stage()).toHaveAttribute('data-media', 'kiosk');
  expect(await (await request.get(server('/api/cues'), { headers: cues })).json()).not.toHaveProperty('links');

  const { makeBoardLink } = await import('@/services/cues');
  const { token } = await makeBoardLink(await ternholm(), { board: 'stewards', name: 'Sensor' });
  const button = (await draft()).boards[0]?.buttons.find(({ label }) => label === 'Greeting')?.id ?? '';
  const hook = await request.post(server(`/api/hooks/${token}/${button}`), { data: 'anything at all' });
  expect(await hook.json()).toMatchObject({ name: 'Greeting', by: 'Sensor, on “Stewards”' });
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  await request.post(server(`/api/hooks/${token}/${button}?end`));
  await expect(stage()).toHaveAttribute('data-media', 'kiosk');
  // A link that is ended opens nothing, and says so on the phone.
  await page.goto(server('/cues'));
  await page.getByRole('button', { name: 'On a phone: Stewards' }).click();
  await page.getByRole('button', { name: 'End the link for Steward' }).click();
  await expect
    .poll(() => phone?.getByText('This link no longer opens anything', { exact: false }).isVisible())
    .toBe(true);
});

test('arrow keys turn the pages, and the plan goes on after a rest; in a presentation each page waits', async () => {
  const { edit } = await import('@/services/plan');
  const pages = ['line-flag', 'route-map', 'weather-outlook'];
  const items = pages.map((media) => ({ media, durationMs: 3_600_000 }));
  await edit(await ternholm(), [
    { kind: 'playlist', id: 'pages', add: { name: 'Pages', items } },
    { kind: 'screen', id: 'pier-end', set: { backdrop: { playlist: 'pages' } } },
  ]);
  await page.goto(server('/screens?screen=pier-end'));
  await page.getByLabel('Arrow keys').fill('3 s');
  await page.getByLabel('Arrow keys').press('Tab');
  await expect.poll(async () => (await draft()).screens.find(({ id }) => id === 'pier-end')?.stepRestMs).toBe(3000);
  await publish();
  const first = pages.indexOf((await due(Date.now())) ?? '');
  const isSeen = (step: number) =>
    expect(stage()).toHaveAttribute('data-media', pages[(first + step + pages.length) % pages.length] ?? '');
  await isSeen(0);
  await player.keyboard.press('ArrowRight');
  await isSeen(1);
  await player.keyboard.press('ArrowLeft');
  await player.keyboard.press('ArrowLeft');
  await isSeen(-1);
  await isSeen(0);

  await page.goto(server('/playlists/pages'));
  await page.getByLabel('Order').selectOption('each item waits for a key or a press');
  await expect.poll(async () => (await draft()).playlists.find(({ id }) => id === 'pages')?.waits).toBe(true);
  // What comes first shows that the player has it.
  await edit(await ternholm(), [{ kind: 'playlist', id: 'pages', set: { items: [{ media: 'map-tall' }, ...items] } }]);
  await publish();
  const shows = (media: string) => expect(stage()).toHaveAttribute('data-media', media);
  await shows('map-tall');
  await player.keyboard.press('Space');
  await shows('line-flag');
  await player.mouse.click(900, 300);
  await shows('route-map');
  await player.mouse.click(50, 300);
  await shows('line-flag');
});

test('another source is seen where a device captures it; elsewhere a card says so, or the backdrop shows', async () => {
  const { edit } = await import('@/services/plan');
  const { pairScreen } = await import('@/services/screens');
  const without = async (withoutInput: 'backdrop' | null) => {
    await edit(await ternholm(), [{ kind: 'network', id: 'network', set: { withoutInput } }]);
    await publish();
  };
  const content = { input: 'hdmi-1' };
  await booked('captured', { name: 'Captured picture', content, where: HERE, priority: 5, when: {} });
  await without('backdrop');
  await expect(stage()).toHaveAttribute('data-media', 'hdmi-1');
  // The pages that wait are its backdrop.
  const instead = stage().locator('.layer > img');
  await expect(instead).toBeVisible();
  expect(await instead.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0);
  await without(null);
  await expect(stage()).toContainText('The input hdmi-1 isn’t connected to this player.');

  const { launchOptions = {} } = test.info().project.use;
  const fake = ['--use-fake-device-for-media-stream', '--auto-accept-camera-and-microphone-capture'];
  const browser = await chromium.launch({
    ...launchOptions,
    args: [...(launchOptions.args ?? []), ...fake],
  });
  const capturing = await browser.newPage();
  await capturing.goto(server('/player'));
  await expect(capturing.locator('#code')).toHaveText(/-/);
  await pairScreen(await ternholm(), 'pier-end', await capturing.locator('#code').innerText(), '127.0.0.1');
  const film = capturing.locator('#stage video.layer');
  await expect(film).toBeVisible();
  // The picture of the device moves.
  await film.evaluate(
    (video: HTMLVideoElement) =>
      new Promise<void>((moved) => {
        const canvas = new OffscreenCanvas(64, 36);
        const context = canvas.getContext('2d', { willReadFrequently: true });
        const look = () => {
          context?.drawImage(video, 0, 0, 64, 36);
          return [...(context?.getImageData(0, 0, 64, 36).data ?? [])].join();
        };
        const first = look();
        const again = () => (look() === first ? requestAnimationFrame(again) : moved());
        again();
      }),
  );
  await browser.close();
});
