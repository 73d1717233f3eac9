import { readFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import { PERMISSIONS, ROLE, ROLES, type Permission } from '@/core/roles';
import { rows } from '@/database';
import { closeFeed, openFeed } from './calendars';
import { cancelCommand, sendCommand } from './commands';
import { endBoardLink, fireCue, makeBoardLink, pressButton, setBoardPeople } from './cues';
import { watchScreens } from './glimpses';
import {
  allClear,
  askToPublish,
  callOffPlanned,
  drillTakeover,
  endPutOn,
  fireTakeover,
  keep,
  movePlanned,
  pilotEdition,
  planEdition,
  publishAgain,
  publishEdition,
  publishPlanned,
  putOn,
  requests,
  sendBack,
  setFirers,
  takeBack,
  withdrawRequest,
} from './editions';
import {
  beginUpload,
  bringBack,
  cancelUpload,
  completeUpload,
  describeBatch,
  dismissUpload,
  receiveUpload,
  removeSearch,
  saveSearch,
} from './library';
import {
  actorOfKey,
  addPerson,
  endKey,
  invitations,
  invite,
  keys,
  makeKey,
  offerReset,
  othersKeys,
  removePerson,
  setRole,
  signOutPerson,
  trail,
  withdraw,
  type Actor,
} from './people';
import { addPlaylistFile, draftPlan, edit, importPlan, lastChange, undo } from './plan';
import {
  endEnrolmentKey,
  giveScreens,
  hurryScreens,
  makeEnrolmentKey,
  pairScreen,
  pairScreens,
  sendAway,
  setPlayerPin,
  unpairScreen,
} from './screens';
import { newNetwork, newPlan, useDatabase } from './tests/database';

useDatabase();

const ID = '00000000-0000-7000-8000-000000000000';
const HERE = { address: '192.0.2.7' };
const DAY = { content: { playlist: 'house' }, where: 'all', created: '2026-01-01T00:00:00Z' };

/** What each call that changes something needs, by the name that web has for it. Calls of one's own things need nothing. */
const CALLS: Readonly<Record<string, readonly [Permission, (actor: Actor) => Promise<unknown>]>> = {
  inviteAction: ['people', (actor) => invite(actor, {})],
  offerResetAction: ['people', (actor) => offerReset(actor, ID)],
  withdrawAction: ['people', (actor) => withdraw(actor, ID)],
  removePersonAction: ['people', (actor) => removePerson(actor, ID)],
  signOutPersonAction: ['people', (actor) => signOutPerson(actor, ID)],
  setRoleAction: ['people', (actor) => setRole(actor, ID, 'viewer')],
  playerPinAction: ['settings', (actor) => setPlayerPin(actor, 'none')],
  keepAction: ['settings', (actor) => keep(actor, {})],
  publishAction: ['publish', (actor) => publishEdition(actor, -1)],
  planAction: ['publish', (actor) => planEdition(actor, -1, Date.now() + 60_000)],
  pilotAction: ['publish', (actor) => pilotEdition(actor, -1, { where: 'all', minutes: null })],
  publishAgainAction: ['publish', (actor) => publishAgain(actor, 77)],
  movePlannedAction: ['publish', (actor) => movePlanned(actor, ID, Date.now() + 60_000)],
  callOffPlannedAction: ['publish', (actor) => callOffPlanned(actor, ID)],
  publishPlannedAction: ['publish', (actor) => publishPlanned(actor, ID)],
  sendBackAction: ['publish', (actor) => sendBack(actor, ID, 'Not yet.')],
  editAction: ['plan', (actor) => edit(actor, [{ kind: 'booking', id: 'none', set: { name: 'X' } }])],
  undoAction: ['plan', (actor) => undo(actor, 'undo')],
  takeBackAction: ['plan', (actor) => takeBack(actor, -1, [])],
  askToPublishAction: ['plan', (actor) => askToPublish(actor, { note: 'x'.repeat(501) })],
  openFeedAction: ['plan', (actor) => openFeed(actor, {})],
  closeFeedAction: ['plan', (actor) => closeFeed(actor, ID)],
  'plan PUT': ['plan', (actor) => importPlan(actor, {})],
  'playlists POST': ['plan', (actor) => addPlaylistFile(actor, 'none.xyz', '')],
  dismissUploadAction: ['library', (actor) => dismissUpload(actor, ID)],
  bringBackAction: ['library', (actor) => bringBack(actor, 'none', ID)],
  saveSearchAction: ['library', (actor) => saveSearch(actor, {})],
  removeSearchAction: ['library', (actor) => removeSearch(actor, ID)],
  describeBatchAction: ['library', (actor) => describeBatch(actor, ID, { tags: ['a b'] })],
  'uploads POST': ['library', (actor) => receiveUpload(actor, { name: 'x', bytes: 0 }, Readable.from([]))],
  'uploads OPTIONS': ['library', (actor) => beginUpload(actor, { name: 'x', bytes: 0, batch: null })],
  'uploads PATCH': ['library', (actor) => completeUpload(actor, ID)],
  'uploads DELETE': ['library', (actor) => cancelUpload(actor, ID)],
  putOnAction: ['operate', (actor) => putOn(actor, { content: { media: 'm' }, where: 'all', until: 0, zone: 'UTC' })],
  endPutOnAction: ['operate', (actor) => endPutOn(actor, 'none')],
  fireAction: ['operate', (actor) => fireTakeover(actor, 'none')],
  drillAction: ['operate', (actor) => drillTakeover(actor, 'none', 'all')],
  allClearAction: ['operate', (actor) => allClear(actor, 'none')],
  setFirersAction: ['operate', (actor) => setFirers(actor, 'none', [])],
  fireCueAction: ['operate', (actor) => fireCue(actor, {})],
  pressButtonAction: ['operate', (actor) => pressButton(actor, 'none', {})],
  makeBoardLinkAction: ['operate', (actor) => makeBoardLink(actor, {})],
  endBoardLinkAction: ['operate', (actor) => endBoardLink(actor, ID)],
  setBoardPeopleAction: ['operate', (actor) => setBoardPeople(actor, 'none', [])],
  pairAction: ['operate', (actor) => pairScreen(actor, 'none', 'BCDF-GHJK', '10.9.9.9')],
  unpairAction: ['operate', (actor) => unpairScreen(actor, 'none')],
  commandAction: ['operate', (actor) => sendCommand(actor, {})],
  pairManyAction: ['operate', (actor) => pairScreens(actor, [{ screen: 'hall', code: 'BCDFGHJK' }], '127.0.0.1')],
  giveScreensAction: ['operate', (actor) => giveScreens(actor, [])],
  sendAwayAction: ['operate', (actor) => sendAway(actor, ID)],
  makeEnrolmentKeyAction: ['operate', (actor) => makeEnrolmentKey(actor, {})],
  endEnrolmentKeyAction: ['operate', (actor) => endEnrolmentKey(actor, ID)],
  watchScreensAction: ['operate', (actor) => watchScreens(actor, [])],
  cancelCommandAction: ['operate', (actor) => cancelCommand(actor, ID)],
  hurryAction: ['operate', (actor) => hurryScreens(actor, [])],
};

/** What everybody may do: what is one's own, and questions. Firing and publishing by routes are the same calls as by actions. */
const OPEN = [
  ...['signInAction', 'claimAction', 'signOutAction', 'joinAction', 'offerAction', 'changePasswordAction'],
  ...['signInPlainly', 'claimPlainly', 'endSessionAction', 'makeKeyAction', 'endKeyAction', 'withdrawRequestAction'],
  ...['batchMediaAction', 'findTownsAction', 'holidayChoicesAction', 'holidaysAction'],
];

const person = (network: Actor, role: (typeof ROLES)[number]) =>
  addPerson(
    network.networkId,
    { name: role, email: `${role}-${network.networkId}@example.org`, password: 'a long password' },
    { role },
  );

test('every action that changes something has a row here, so that none is forgotten', () => {
  const named = ['actions', 'people-actions'].flatMap((file) =>
    [...readFileSync(`src/web/${file}.ts`, 'utf8').matchAll(/^export async function (\w+)/gm)].map(([, name]) => name),
  );
  expect(named.length).toBeGreaterThan(40);
  expect(named.filter((name) => !Object.hasOwn(CALLS, name ?? '') && !OPEN.includes(name ?? ''))).toEqual([]);
});

test.each(ROLES)('a person with the role %s may do what it says, and nothing else', async (role) => {
  const network = await newNetwork();
  await newPlan(network);
  const actor = await person(network, role);
  for (const [name, [permission, call]] of Object.entries(CALLS)) {
    const answer = await call(actor).then(
      () => 'done',
      (error: { status?: number; message: string }) => `${error.status} ${error.message}`,
    );
    const isAllowed = ROLE[role].may.includes(permission) || (name === 'setFirersAction' && role === 'owner');
    expect(`${name}: ${answer.startsWith('403') ? 'refused' : 'allowed'}`).toBe(
      `${name}: ${isAllowed ? 'allowed' : 'refused'}`,
    );
    // What stands in for a call fails at its input, so none of them is a fault of ours.
    expect(`${name}: ${answer}`).not.toMatch(/: (undefined|5)/);
  }
  // Looking is everybody's.
  expect((await draftPlan(actor)).plan.screens).toHaveLength(2);
});

test('the settings of the network are an owner’s; its backdrop is part of the plan', async () => {
  const network = await newNetwork();
  await newPlan(network);
  const planner = await person(network, 'publisher');
  await edit(planner, [{ kind: 'network', id: 'network', set: { backdrop: { playlist: 'house' } } }]);
  await expect(edit(planner, [{ kind: 'network', id: 'network', set: { name: 'Mine' } }])).rejects.toMatchObject({
    status: 403,
    message: expect.stringMatching(/^Only owners can change the settings/),
  });
  expect((await draftPlan(network)).plan.network.name).not.toBe('Mine');
});

test('only owners see links, keys of others and what was done', async () => {
  const network = await newNetwork();
  const viewer = await person(network, 'viewer');
  await makeKey(network, { name: 'Folder', rights: ['library'] });
  await invite(network, { name: 'Una', email: `una-${network.networkId}@example.org`, role: 'viewer' });
  expect([await invitations(viewer), await othersKeys(viewer), await trail(viewer)]).toEqual([[], [], []]);
  const other = await person(network, 'owner');
  expect(await othersKeys(other)).toMatchObject([{ name: 'Folder', person: network.name }]);
  expect([(await invitations(other)).length, (await trail(other)).length > 0]).toEqual([1, true]);
});

test('another role takes effect at once, in what is open too; keys lose what their person loses', async () => {
  const network = await newNetwork();
  const una = await person(network, 'owner');
  const both = await makeKey(una, { name: 'Both', rights: ['library', 'takeovers'] });
  const all = await makeKey(una, { name: 'Publisher', rights: ['publish'] });
  const { token: link } = await invite(una, {
    name: 'Again',
    email: `again-${una.networkId}@example.org`,
    role: 'owner',
  });
  expect(link).toHaveLength(43);
  const upload = await beginUpload(una, { name: 'x.png', bytes: 10, batch: null });
  await setRole(network, una.personId ?? '', 'operator');
  // An owner who expects this can’t have left a way back.
  expect(await invitations(network)).toEqual([]);
  expect((await keys(una)).map(({ name, rights }) => [name, rights])).toEqual([['Both', ['takeovers']]]);
  await expect(actorOfKey(all.token, 'publish', HERE)).rejects.toMatchObject({ status: 401 });
  await expect(actorOfKey(both.token, 'library', HERE)).rejects.toMatchObject({ status: 403 });
  expect((await actorOfKey(both.token, 'takeovers', HERE)).may).toEqual(['operate']);
  expect(await rows('SELECT id FROM uploads WHERE id = $1', [upload])).toEqual([]);
  const operator = { ...una, may: ROLE.operator.may };
  await expect(makeKey(operator, { name: 'More', rights: ['publish'] })).rejects.toMatchObject({ status: 403 });
  expect((await trail(network))[0]).toMatchObject({ act: 'role-set', about: 'owner: operator' });
});

test('a right that was written into the database in another way is worth no more than its person', async () => {
  const network = await newNetwork();
  const viewer = await person(network, 'viewer');
  await expect(makeKey(viewer, { name: 'K', rights: ['library'] })).rejects.toMatchObject({ status: 403 });
  const { token, id } = await makeKey(network, { name: 'K', rights: ['library'] });
  await rows('UPDATE personal_keys SET person_id = $2 WHERE id = $1', [id, viewer.personId]);
  await expect(actorOfKey(token, 'library', HERE)).rejects.toMatchObject({
    status: 403,
    message: expect.stringContaining('may no longer do this'),
  });
  await endKey(network, id);
  await expect(actorOfKey(token, 'library', HERE)).rejects.toMatchObject({ status: 401 });
});

test('nobody raises themselves, and the last owner stays, even where two take each other’s role away at once', async () => {
  const network = await newNetwork();
  for (const role of ['publisher', 'planner', 'operator', 'viewer'] as const) {
    const one = await person(network, role);
    await expect(setRole(one, one.personId ?? '', 'owner')).rejects.toMatchObject({ status: 403 });
  }
  await expect(setRole(network, network.personId ?? '', 'viewer')).rejects.toMatchObject({
    status: 409,
    message: expect.stringMatching(/is the only owner. Make another person an owner first/),
  });
  const other = await person(network, 'owner');
  const results = await Promise.allSettled([
    setRole(network, other.personId ?? '', 'viewer'),
    removePerson(other, network.personId ?? ''),
    setRole(network, network.personId ?? '', 'viewer'),
    setRole(other, other.personId ?? '', 'planner'),
  ]);
  expect(results.some(({ status }) => status === 'fulfilled')).toBe(true);
  const owners = await rows("SELECT id FROM people WHERE network_id = $1 AND role = 'owner' AND removed_at IS NULL", [
    network.networkId,
  ]);
  expect(owners).toHaveLength(1);
});

test('each permission is somebody’s, and owners have all', () => {
  expect(ROLE.owner.may).toEqual(PERMISSIONS);
  expect(ROLE.viewer.may).toEqual([]);
});

describe('a request to publish', () => {
  const asked = async (network: Actor, by: Actor) => {
    await edit(by, [{ kind: 'booking', id: 'a', add: { ...DAY, name: 'A' } }]);
    await edit(network, [{ kind: 'booking', id: 'b', add: { ...DAY, name: 'B' } }]);
    return askToPublish(by, { note: 'For Monday', chosen: [{ kind: 'booking', id: 'a' }] });
  };
  const ready = async () => {
    const network = await newNetwork();
    await newPlan(network);
    await publishEdition(network, await lastChange(network.networkId));
    return { network, una: await person(network, 'planner') };
  };
  const seen = async (actor: Actor) =>
    (await requests(actor)).map(({ note, yours, answer }) => [note, yours, answer && { ...answer, at: '' }]);

  test('is seen by all, and answered by the publication that holds what it asked for', async () => {
    const { network, una } = await ready();
    await expect(askToPublish(una, { note: '' })).rejects.toMatchObject({ status: 409 });
    await asked(network, una);
    expect(await seen(network)).toEqual([['For Monday', false, null]]);
    const at = () => lastChange(network.networkId);
    await publishEdition(network, await at(), { chosen: [{ kind: 'booking', id: 'b' }] });
    expect(await seen(una)).toEqual([['For Monday', true, null]]);
    await publishEdition(network, await at());
    const answer = { kind: 'published', at: '', by: network.name, number: 3, plannedFor: null };
    expect(await seen(una)).toEqual([['For Monday', true, answer]]);
  });

  test('is sent back with a word, once; asked anew it is one that waits, and its person takes it away', async () => {
    const { network, una } = await ready();
    const { id } = await asked(network, una);
    await expect(sendBack(network, id, ' ')).rejects.toMatchObject({ status: 422 });
    await sendBack(network, id, 'Not on a Monday.');
    await expect(sendBack(network, id, 'Again.')).rejects.toMatchObject({ status: 404 });
    const again = await askToPublish(una, { note: 'Tuesday' });
    const third = await askToPublish(una, { note: 'Wednesday' });
    const back = { kind: 'sent-back', at: '', by: network.name, word: 'Not on a Monday.' };
    expect(await seen(una)).toEqual([
      ['Wednesday', true, null],
      ['For Monday', true, back],
    ]);
    await expect(withdrawRequest(network, third.id)).rejects.toMatchObject({ status: 404 });
    await expect(withdrawRequest(una, again.id)).rejects.toMatchObject({ status: 404 });
    await withdrawRequest(una, third.id);
    await withdrawRequest(una, id);
    expect(await seen(network)).toEqual([]);
  });

  test('that is planned is answered by what is planned, follows it as it is carried on, and waits again when that is called off', async () => {
    const { network, una } = await ready();
    await asked(network, una);
    const chosen = [{ kind: 'booking', id: 'a' }] as const;
    const time = Math.ceil(Date.now() / 1000) * 1000 + 3_600_000;
    await planEdition(network, await lastChange(network.networkId), time, { chosen });
    const planned = {
      kind: 'published',
      at: '',
      by: network.name,
      number: null,
      plannedFor: new Date(time).toISOString(),
    };
    expect(await seen(una)).toEqual([['For Monday', true, planned]]);
    // What goes out before it is carried into it: its row is another one then.
    await publishEdition(network, await lastChange(network.networkId), { chosen: [{ kind: 'booking', id: 'b' }] });
    expect(await seen(una)).toEqual([['For Monday', true, planned]]);
    const [waiting] = await rows<{ id: string }>('SELECT id FROM editions WHERE network_id = $1 AND number IS NULL', [
      network.networkId,
    ]);
    await callOffPlanned(network, waiting?.id ?? '');
    expect(await seen(una)).toEqual([['For Monday', true, null]]);
  });

  test('of another network is nobody’s', async () => {
    const { network, una } = await ready();
    const { id } = await asked(network, una);
    const stranger = await newNetwork();
    expect(await requests(stranger)).toEqual([]);
    await expect(sendBack(stranger, id, 'No.')).rejects.toMatchObject({ status: 404 });
    await expect(withdrawRequest(stranger, id)).rejects.toMatchObject({ status: 404 });
  });
});
