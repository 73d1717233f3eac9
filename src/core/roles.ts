/** Roles: what each person may do in their network. Pure, so that pages offer only what the services will allow. */

/** From the one who may do everything to the one who only looks. */
export const ROLES = ['owner', 'publisher', 'planner', 'operator', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

/**
 * What a person may do: `people` is people, roles and other people's keys; `settings` is what holds for the whole network; `publish` sends
 * changes to the screens; `plan` changes the draft; `library` sends and changes files; `operate` is putting something on now, takeovers,
 * cues, pairing and commands to players. Everybody may look at everything in their network, and change their own password, windows and keys.
 */
export const PERMISSIONS = ['people', 'settings', 'publish', 'plan', 'library', 'operate'] as const;
export type Permission = (typeof PERMISSIONS)[number];

/** What a role is called, and what people with it do, as the interface says it. */
interface Described {
  readonly name: string;
  readonly does: string;
  readonly may: readonly Permission[];
}

export const ROLE: Readonly<Record<Role, Described>> = {
  owner: {
    name: 'Owner',
    does: 'Can do everything, including people, roles and network settings.',
    may: PERMISSIONS,
  },
  publisher: {
    name: 'Planner with publishing',
    does: 'Can change the plan and the library, publish, put things on now, activate takeovers, and pair and command screens.',
    may: ['publish', 'plan', 'library', 'operate'],
  },
  planner: {
    name: 'Planner',
    does: 'Can change the plan and the library. Asks someone else to publish.',
    may: ['plan', 'library'],
  },
  operator: {
    name: 'Operator',
    does: 'Can put things on now, activate takeovers, and pair and command screens. Can’t change the plan.',
    may: ['operate'],
  },
  viewer: { name: 'Viewer', does: 'Can look at everything, and change nothing.', may: [] },
};

/** Why something is refused, and whom to ask. */
export const REFUSED: Readonly<Record<Permission, string>> = {
  people: 'Only owners can do this. The list of people shows who is an owner.',
  settings: 'Only owners can change the settings of the network. The list of people shows who is an owner.',
  publish: 'Your role can’t publish. Send a request from the Publish page, and someone who can will publish it.',
  plan: 'Your role can’t change the plan. Ask an owner to make you a planner.',
  library: 'Your role can’t change the library. Ask an owner to make you a planner.',
  operate:
    'Your role can’t put things on screens, activate takeovers, or pair or command screens. Ask an owner to make you an operator.',
};

/**
 * What a key for a program may be good for: `library` sends files there, and reads what is in it; `publish` reads and replaces the plan, and
 * publishes; `takeovers` fires those that are prepared, and clears them; `commands` sends commands to players; `cues` fires and ends cues.
 */
export const RIGHTS = ['library', 'publish', 'takeovers', 'commands', 'cues'] as const;
export type Right = (typeof RIGHTS)[number];

/** What a key's right lets its program do: never more than its person may. */
const OF_RIGHT: Readonly<Record<Right, readonly Permission[]>> = {
  library: ['library'],
  publish: ['publish', 'plan', 'settings'],
  takeovers: ['operate'],
  commands: ['operate'],
  cues: ['operate'],
};
/** Without this a right is worth nothing, so it can't be given. */
const NEEDED: Readonly<Record<Right, Permission>> = {
  library: 'library',
  publish: 'publish',
  takeovers: 'operate',
  commands: 'operate',
  cues: 'operate',
};

/** The rights that a person with a role may give to a key. */
export const rightsOf = (role: Role): readonly Right[] =>
  RIGHTS.filter((right) => ROLE[role].may.includes(NEEDED[right]));

/** What a program may do with a key: what the right says, as far as its person may. */
export const mayByKey = (right: Right, role: Role): readonly Permission[] =>
  OF_RIGHT[right].filter((permission) => ROLE[role].may.includes(permission));
