/** Who did it: a person, or a program with that person's key. */
export const byWhom = (person: string | null, byKey: boolean): string =>
  `${person ?? 'someone'}${byKey ? ', by a key' : ''}`;
