import { fileResponse as answerFile, type StoredFile } from '@/protocol/file-response';
import { openToSend } from '@/services/library';

/** A stored file for the interface to show. What a file holds is never run: not even a drawing's scripts. */
export function fileResponse(request: Request, file: StoredFile): Promise<Response> {
  return answerFile(request, file, openToSend, { 'content-security-policy': "default-src 'none'; sandbox" });
}
