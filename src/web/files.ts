import { Readable } from 'node:stream';
import { fileResponse as answerFile, type StoredFile } from '@/protocol/file-response';
import { readFile } from '@/services/library';

/** A stored file for the interface to show. What a file holds is never run: not even a drawing's scripts. */
export function fileResponse(request: Request, file: StoredFile): Response {
  const open = (range?: { start: number; end: number }) =>
    Readable.toWeb(readFile(file.sha256, range)) as ReadableStream<Uint8Array>;
  return answerFile(request, file, open, { 'content-security-policy': "default-src 'none'; sandbox" });
}
