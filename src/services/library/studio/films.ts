import { SENT, inRoom, startTool, type Given } from './sandbox';

/**
 * ffmpeg and ffprobe as files of strangers need them: the demuxer is the one that the bytes say, so that no file can be a manifest that
 * names others; nothing but this one file is opened; what stands still is ended.
 */

/** Containers that are taken, by media type, and the one demuxer that reads each. */
const DEMUXERS: Readonly<Record<string, string>> = {
  'video/mp4': 'mov',
  'video/webm': 'matroska',
  'video/x-msvideo': 'avi',
  'video/mpeg': 'mpeg',
  'video/mp2t': 'mpegts',
  'video/x-ms-asf': 'asf',
  'image/gif': 'gif',
  'image/bmp': 'bmp_pipe',
  'audio/mpeg': 'mp3',
  'audio/aac': 'aac',
  'audio/wav': 'wav',
  'audio/ogg': 'ogg',
  'audio/flac': 'flac',
  'audio/mp4': 'mov',
};

const STILL_FOR_MS = 120_000;

/** The part of the command that reads the video or sound that was sent. */
export const inputOf = (type: string): string[] => [
  ...['-protocol_whitelist', 'file', '-f', DEMUXERS[type] ?? 'mov', '-i', `file:${SENT}`],
];

/** Runs ffmpeg for as long as it moves; `heard` gets what it writes. Whether it came to a good end. */
export async function runFfmpeg(
  args: readonly string[],
  given: Given,
  heard: (text: string) => void,
): Promise<boolean> {
  return inRoom(given, async (room) => {
    const child = startTool('ffmpeg', args, ['ignore', 'pipe', 'ignore'], { room });
    let still = setTimeout(() => child.kill('SIGKILL'), STILL_FOR_MS);
    child.stdout?.on('data', (text: Buffer) => {
      clearTimeout(still);
      still = setTimeout(() => child.kill('SIGKILL'), STILL_FOR_MS);
      heard(text.toString());
    });
    const code = await new Promise<number | null>((done, failed) => child.once('error', failed).once('close', done));
    clearTimeout(still);
    return code === 0;
  });
}
