import { MOST_OF_NAME } from '@/core/plan';

/** "House loop, copy", or "House loop, copy 2" where that is taken: a name that none of the others has, in any case, as long as names may be. */
export function freeName(name: string, others: readonly { readonly name: string }[]): string {
  const taken = new Set(others.map((one) => one.name.toLowerCase()));
  for (let n = 1; ; n++) {
    const ending = n === 1 ? ', copy' : `, copy ${n}`;
    const wanted = `${[...name].slice(0, MOST_OF_NAME - ending.length).join('')}${ending}`;
    if (!taken.has(wanted.toLowerCase())) return wanted;
  }
}
