import { Refusal, type Refused } from '@/core/refusal';

export const notFound = (thing: string) =>
  new Refusal(404, `Your network has no such ${thing}. It may have been deleted.`);

/** A refusal as an RFC 9457 problem document. */
export function problemDocument({ status, message, problems }: Refused) {
  return {
    type: 'about:blank',
    title: message,
    status,
    ...(problems.length > 0 ? { errors: problems } : {}),
  };
}
