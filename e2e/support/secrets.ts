import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BrowserContext } from '@playwright/test';

/** Secrets that were made on this worker's instance. What the sample network's documentation tells is none. */
const made = new Set<string>();

/** A secret of a test's own making, which no log may hold. */
export function secret<T extends string>(text: T): T {
  made.add(text);
  return text;
}

const SESSION = /lanternpost-session=([\w-]{20,})/g;
const BEARER = /^Bearer (.{20,})$/;

/** Learns the sessions and tokens that a browser is given or sends. */
export function learnSecrets(context: BrowserContext): void {
  const learn = (headers: Readonly<Record<string, string>>) => {
    const bearer = BEARER.exec(headers.authorization ?? '')?.[1];
    if (bearer) made.add(bearer);
    for (const [, session] of (headers.cookie ?? '').matchAll(SESSION)) if (session) made.add(session);
  };
  context.on('request', (request) => void request.allHeaders().then(learn, () => undefined));
}

/** How many secrets are known, and those found in the logs of an instance and its PostgreSQL. */
export function secretsInLogs(data: string): { readonly known: number; readonly found: string[] } {
  const logs = ['instance.log', 'postgres/server.log']
    .map((name) => join(data, name))
    .filter(existsSync)
    .map((path) => readFileSync(path, 'utf8'));
  return { known: made.size, found: [...made].filter((one) => logs.some((log) => log.includes(one))) };
}
