import type { IncomingMessage, ServerResponse } from 'node:http';

/** How long a body may take in all, and how long an upload may stand still. */
const BODY_WITHIN_MS = 30_000;
const UPLOAD_STILL_MS = 60_000;

/** Ends requests whose body does not come: an upload takes as long as it moves, everything else is short. */
export function endSlowBody(request: IncomingMessage, response: ServerResponse, isUpload: boolean): void {
  if (request.method === 'GET' || request.method === 'HEAD') return;
  let seen = request.socket.bytesRead;
  const timer = setInterval(
    () => {
      const { bytesRead } = request.socket;
      if (isUpload && bytesRead > seen) {
        seen = bytesRead;
        return;
      }
      clearInterval(timer);
      request.socket.destroy();
    },
    isUpload ? UPLOAD_STILL_MS : BODY_WITHIN_MS,
  );
  const done = () => clearInterval(timer);
  request.once('end', done).once('close', done);
  response.once('close', done);
}
