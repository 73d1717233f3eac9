import type { IncomingMessage, ServerResponse } from 'node:http';

/** The largest body that anything but an upload sends, in bytes: a plan file with 5 000 screens has some 12 MB. */
const MOST_BODY = 32 * 2 ** 20;

/** Why a body can't be taken, before any of it is read; null where it can. Next answers what is too large with a fault of its own. */
export function bodyTrouble({
  method,
  headers,
}: Pick<IncomingMessage, 'method' | 'headers'>): { readonly status: number; readonly title: string } | null {
  if (method === 'GET' || method === 'HEAD') return null;
  if (Number(headers['content-length'] ?? 0) > MOST_BODY)
    return { status: 413, title: `This request is larger than ${MOST_BODY / 2 ** 20} MB. Send less at a time.` };
  if (headers['content-length'] === undefined && /^multipart\//.test(headers['content-type'] ?? ''))
    return { status: 411, title: 'This request has no length. Send Content-Length.' };
  return null;
}

/** So many seconds a body may be waited for in all, and an upload that stands still. */
const BODY_SECONDS = 30;
const UPLOAD_SECONDS = 60;

/**
 * Ends requests whose body does not come. An upload may take as long as bytes keep coming; any other body is short. Only the time counts in
 * which we wait for the sender. While received bytes are still unread, this server is the slow one.
 */
export function endSlowBody(request: IncomingMessage, response: ServerResponse, isUpload: boolean): void {
  if (request.method === 'GET' || request.method === 'HEAD') return;
  let seen = request.socket.bytesRead;
  let waited = 0;
  const timer = setInterval(() => {
    const { bytesRead } = request.socket;
    if (request.complete) return done();
    if (isUpload && bytesRead > seen) waited = 0;
    else if (request.readableLength === 0) waited++;
    seen = bytesRead;
    if (waited < (isUpload ? UPLOAD_SECONDS : BODY_SECONDS)) return;
    done();
    request.socket.destroy();
  }, 1000);
  const done = () => clearInterval(timer);
  request.once('end', done).once('close', done);
  response.once('close', done);
}
