import type { Problem } from '@/core';

/** A person's request that can't be done, with an HTTP status, a sentence that says what to do, and the places where known. */
export class ServiceError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: readonly Problem[] = [],
  ) {
    super(message);
    this.name = 'ServiceError';
  }
}

export const notFound = (thing: string) =>
  new ServiceError(404, `There is no such ${thing} in your network: it may have been removed.`);

/** A service error as an RFC 9457 problem document. */
export function problemDocument(error: ServiceError) {
  return {
    type: 'about:blank',
    title: error.message,
    status: error.status,
    ...(error.problems.length > 0 ? { errors: error.problems } : {}),
  };
}
