import { PersonRow, SessionRow, rows } from '@/database';
import { feeds, openFeed } from '../calendars';
import { editions, publishEdition } from '../editions';
import { lastChange } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { refusal } from '../tests/refusal';
import {
  actorOf,
  addPerson,
  changePassword,
  clearInvitations,
  endSession,
  invitations,
  invite,
  join,
  offerOf,
  offerReset,
  people,
  removePerson,
  sessions,
  signIn,
  signOutPerson,
  trail,
  watchSession,
  withdraw,
  type Actor,
} from '.';

useDatabase();

const HERE = { address: '127.0.0.1', agent: 'a test' };
const PASSWORD = 'a long password';
let count = 0;
const newAddress = () => `una${++count}@example.org`;
const asPerson = async (token: string): Promise<Actor> => {
  const actor = await actorOf(token);
  if (!actor) throw new Error('nobody is logged in');
  return actor;
};
const emailOf = async (actor: Actor) => (await people(actor)).find((one) => one.you)?.email ?? '';
const enter = async (actor: Actor) => signIn({ email: await emailOf(actor), password: PASSWORD }, HERE);
const acts = async (actor: Actor) => (await trail(actor)).map(({ by, act, about }) => [by, act, about]);
const GONE = '404 This link was used, withdrawn, or is too old. Ask for another.';

test('who is invited comes in by the link, once, as a person of that network', async () => {
  const ida = await newNetwork();
  const email = newAddress();
  const { token } = await invite(ida, { name: 'Una', email: email.toUpperCase(), role: 'planner' });
  expect(await offerOf(token, HERE)).toMatchObject({ name: 'Una', email, reset: false });
  expect(await invitations(ida)).toMatchObject([{ name: 'Una', email, reset: false, by: ida.name }]);
  // Its secret is nowhere in the database.
  expect(JSON.stringify(await rows('SELECT * FROM invitations'))).not.toContain(token);
  const una = await asPerson((await join(token, { name: 'Una Berg', password: PASSWORD }, HERE)).token);
  expect(una).toMatchObject({ name: 'Una Berg', networkId: ida.networkId });
  expect(await refusal(join(token, { name: 'Again', password: PASSWORD }, HERE))).toBe(GONE);
  expect(await invitations(ida)).toEqual([]);
  await signIn({ email, password: PASSWORD }, HERE);
  expect((await people(ida)).map(({ name, you, sessions: open }) => [name, you, open])).toEqual([
    [ida.name, true, 0],
    ['Una Berg', false, 2],
  ]);
  expect(await acts(ida)).toEqual([
    ['Una Berg', 'signed-in', null],
    ['Una Berg', 'joined', null],
    [ida.name, 'invited', `Una (${email})`],
  ]);
});

test('two who use one link at the same time: one comes in', async () => {
  const ida = await newNetwork();
  const { token } = await invite(ida, { name: 'Una', email: newAddress(), role: 'planner' });
  const tries = await Promise.all(
    ['Una', 'Ulf'].map((name) => refusal(join(token, { name, password: PASSWORD }, HERE))),
  );
  expect(tries.sort()).toEqual([GONE, 'done']);
  expect(await people(ida)).toHaveLength(2);
});

test('a link ends by time, by a second one to the same address, and when it is withdrawn', async () => {
  const ida = await newNetwork();
  const email = newAddress();
  const first = await invite(ida, { name: 'Una', email, role: 'planner' });
  const second = await invite(ida, { name: 'Una', email, role: 'planner' });
  expect(await refusal(offerOf(first.token, HERE))).toBe(GONE);
  await offerOf(second.token, HERE);
  const stranger = await newNetwork();
  const [waiting] = await invitations(ida);
  expect(await refusal(withdraw(stranger, waiting?.id ?? ''))).toMatch(/^404/);
  await withdraw(ida, waiting?.id ?? '');
  expect(await refusal(join(second.token, { name: 'Una', password: PASSWORD }, HERE))).toBe(GONE);
  const third = await invite(ida, { name: 'Una', email, role: 'planner' });
  await rows("UPDATE invitations SET expires_at = now() - interval '1 second' WHERE email = $1", [email]);
  expect(await refusal(join(third.token, { name: 'Una', password: PASSWORD }, HERE))).toBe(GONE);
  expect(await invitations(ida)).toEqual([]);
  await clearInvitations();
  expect(await rows('SELECT 1 FROM invitations WHERE email = $1', [email])).toEqual([]);
});

test('what is wrong with an invitation is said: a person of the network, an address of another, a field', async () => {
  const ida = await newNetwork();
  const stranger = await newNetwork();
  expect(await refusal(invite(ida, { name: 'Me', email: await emailOf(ida), role: 'planner' }))).toBe(
    `409 ${ida.name} already has this address here.`,
  );
  expect(await refusal(invite(ida, { name: ' ', email: 'nowhere', role: 'planner' }))).toMatch(/^422/);
  // Who invites is told nothing of other networks; who holds the link is.
  const email = await emailOf(stranger);
  const { token } = await invite(ida, { name: 'Stranger', email, role: 'planner' });
  expect(await refusal(join(token, { name: 'S', password: 'short' }, HERE))).toMatch(/^422 A password has at least 10/);
  expect(await refusal(join(token, { name: 'S', password: PASSWORD }, HERE))).toMatch(
    /^409 .*@example\.org already belongs to someone on this server\./,
  );
  // Refused, it can still be used once the address is free.
  expect(await offerOf(token, HERE)).toMatchObject({ email });
});

test('a password set anew by a link of another person ends all that was open under the old one', async () => {
  const ida = await newNetwork();
  const otto = await addPerson(ida.networkId, { name: 'Otto', email: newAddress(), password: PASSWORD });
  const old = await enter(otto);
  const ended = new Promise<void>((done) => watchSession(otto, old.token, done));
  expect(await refusal(offerReset(ida, ida.personId ?? ''))).toMatch(/^409/);
  expect(await refusal(offerReset(await newNetwork(), otto.personId ?? ''))).toMatch(/^404/);
  const { token } = await offerReset(ida, otto.personId ?? '');
  // Until it is used, nothing is changed.
  expect(await actorOf(old.token)).not.toBeNull();
  expect(await offerOf(token, HERE)).toMatchObject({ name: 'Otto', reset: true });
  const fresh = await join(token, { name: 'ignored', password: 'another password' }, HERE);
  expect(await asPerson(fresh.token)).toEqual(otto);
  await ended;
  expect(await actorOf(old.token)).toBeNull();
  expect(await refusal(enter(otto))).toMatch(/^401/);
  expect((await acts(ida)).slice(0, 2)).toEqual([
    ['Otto', 'password-set', null],
    [ida.name, 'reset-offered', expect.stringContaining('Otto')],
  ]);
});

test("one's own password is changed with the present one; other sessions end, this one stays", async () => {
  const ida = await newNetwork();
  const [here, there] = [await enter(ida), await enter(ida)];
  const change = (current: string, password: string) => refusal(changePassword(ida, { current, password }, here.token));
  expect(await change('not this one', 'another password')).toMatch(/^403/);
  expect(await change(PASSWORD, 'short')).toMatch(/^422/);
  expect(await change(PASSWORD, PASSWORD)).toMatch(/^422 This is your password already/);
  expect(await actorOf(there.token)).not.toBeNull();
  expect(await change(PASSWORD, 'another password')).toBe('done');
  expect([await actorOf(here.token), await actorOf(there.token)]).toEqual([ida, null]);
  for (let i = 0; i < 10; i++) await change('not this one', 'a third password');
  expect(await change('another password', 'a third password')).toMatch(/^429/);
});

test('sessions are seen with where they were opened, and ended one by one or all by another person', async () => {
  const ida = await newNetwork();
  const otto = await addPerson(ida.networkId, { name: 'Otto', email: newAddress(), password: PASSWORD });
  const [here, there] = [await enter(ida), await enter(ida)];
  await rows("UPDATE sessions SET seen_at = now() - interval '1 hour' WHERE person_id = $1", [ida.personId]);
  await actorOf(here.token);
  const seen = await sessions(ida, here.token);
  expect(seen).toMatchObject([
    { here: true, ...HERE },
    { here: false, ...HERE },
  ]);
  // The one that is used is as of now, to some minutes.
  const [mine, other] = seen.map((one) => Date.now() - Date.parse(one.seenAt));
  expect([(mine ?? 0) < 60_000, (other ?? 0) > 3_000_000]).toEqual([true, true]);
  expect(await refusal(endSession(otto, seen[1]?.id ?? ''))).toMatch(/^404/);
  await endSession(ida, seen[1]?.id ?? '');
  expect([await actorOf(here.token), await actorOf(there.token)]).toEqual([ida, null]);
  expect(await refusal(signOutPerson(await newNetwork(), ida.personId ?? ''))).toMatch(/^404/);
  await signOutPerson(otto, ida.personId ?? '');
  expect(await actorOf(here.token)).toBeNull();
  expect((await acts(ida)).slice(0, 2)).toEqual([
    ['Otto', 'sessions-ended', ida.name],
    [ida.name, 'sessions-ended', null],
  ]);
});

test('a removed person is out at once with all that they could use, and what they did keeps their name', async () => {
  const ida = await newNetwork();
  await newPlan(ida);
  const email = newAddress();
  const otto = await addPerson(ida.networkId, { name: 'Otto', email, password: PASSWORD });
  await publishEdition(otto, await lastChange(ida.networkId));
  await openFeed(otto, { name: 'All', where: 'all' });
  const { token: link } = await invite(otto, { name: 'Una', email: newAddress(), role: 'planner' });
  const { token: reset } = await offerReset(ida, otto.personId ?? '');
  const session = await enter(otto);
  const ended = new Promise<void>((done) => watchSession(otto, session.token, done));
  expect((await people(ida)).find((one) => one.name === 'Otto')).toMatchObject({ feeds: 1 });
  expect(await refusal(removePerson(otto, otto.personId ?? ''))).toMatch(/^409 You can’t remove yourself/);
  expect(await refusal(removePerson(await newNetwork(), otto.personId ?? ''))).toMatch(/^404/);
  await removePerson(ida, otto.personId ?? '');
  await ended;
  expect(await actorOf(session.token)).toBeNull();
  expect(await refusal(signIn({ email, password: PASSWORD }, HERE))).toMatch(/^401/);
  expect([await refusal(offerOf(link, HERE)), await refusal(offerOf(reset, HERE))]).toEqual([GONE, GONE]);
  expect(await feeds(ida)).toEqual([]);
  expect((await people(ida)).map((one) => one.name)).toEqual([ida.name]);
  expect((await editions(ida))[0]).toMatchObject({ number: 1, person: 'Otto' });
  expect(await refusal(removePerson(ida, otto.personId ?? ''))).toMatch(/^404/);
  // The address is free for a new person.
  const again = await invite(ida, { name: 'Otto', email, role: 'planner' });
  await join(again.token, { name: 'Otto', password: PASSWORD }, HERE);
});

test('passwords that everybody can read open nothing but a server of the sample network', async () => {
  const ida = await newNetwork();
  const email = newAddress();
  const otto = await addPerson(ida.networkId, { name: 'Otto', email, password: PASSWORD }, { samplePassword: true });
  process.env.LANTERNPOST_DEMO = '1';
  const { token } = await enter(otto);
  expect(await actorOf(token)).toEqual(otto);
  delete process.env.LANTERNPOST_DEMO;
  expect(await actorOf(token)).toBeNull();
  expect(await refusal(signIn({ email, password: PASSWORD }, HERE))).toMatch(/^403 .*lanternpost person reset/);
  expect(await refusal(signIn({ email, password: 'not this one' }, HERE))).toMatch(/^401/);
  const link = await offerReset(ida, otto.personId ?? '');
  await join(link.token, { name: 'Otto', password: 'another password' }, HERE);
  expect(await PersonRow.findByPk(otto.personId ?? '')).toMatchObject({ samplePassword: false });
  await signIn({ email, password: 'another password' }, HERE);
  expect(await SessionRow.count({ where: { personId: otto.personId ?? '' } })).toBe(2);
});

test('too many links that wait, and too many tries at links, are refused', async () => {
  const ida = await newNetwork();
  for (let i = 0; i < 100; i++) await invite(ida, { name: 'Una', email: newAddress(), role: 'planner' });
  expect(await refusal(invite(ida, { name: 'Una', email: newAddress(), role: 'planner' }))).toMatch(
    /409 100 links are waiting to be used./,
  );
  const { token } = await invite(await newNetwork(), { name: 'Ulf', email: newAddress(), role: 'planner' });
  // Who holds a link may look as often as they like.
  for (let i = 0; i < 40; i++) await offerOf(token, { address: '10.0.0.30', agent: null });
  const guess = () => refusal(offerOf('x'.repeat(43), { address: '10.0.0.30', agent: null }));
  for (let i = 0; i < 30; i++) expect(await guess()).toBe(GONE);
  expect(await guess()).toMatch(/^429/);
});
