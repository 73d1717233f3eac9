/** Sends one file to the library. `progress` hears the share that was sent, 0 to 1. Resolves with a sentence where it is refused or known. */
export function sendFile(file: File, progress: (share: number) => void): Promise<{ refused?: string; known?: string }> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open('POST', `/api/uploads?name=${encodeURIComponent(file.name)}`);
    request.upload.onprogress = ({ loaded, total }) => progress(total > 0 ? loaded / total : 0);
    request.onerror = () =>
      resolve({ refused: 'The line broke while sending: check the network, then drop the file again.' });
    request.onload = () => {
      const body = JSON.parse(request.responseText || '{}') as { title?: string; known?: string };
      if (request.status >= 400) resolve({ refused: body.title ?? `The server answered ${request.status}.` });
      else resolve(body.known === undefined ? {} : { known: body.known });
    };
    request.send(file);
  });
}
