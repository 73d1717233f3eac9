import type { IncomingMessage, ServerResponse } from 'node:http';

/** So many seconds a body may be waited for in all, and an upload that stands still. */
const BODY_SECONDS = 30;
const UPLOAD_SECONDS = 60;

/**
 * Ends requests whose body does not come: an upload takes as long as it moves, everything else is short. Only the time is counted in which
 * we wait for bytes. While some are there that nobody has read yet, it is this server that is slow, and the sender is not to blame.
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
