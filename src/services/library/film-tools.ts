import { execFile, spawn } from 'node:child_process';
import { promisify } from 'node:util';

/**
 * ffmpeg and ffprobe as files of strangers need them: the demuxer is the one that the bytes say, so that no file can be a manifest that
 * names others; nothing but this one file is opened; memory and processor time end somewhere, and what stands still is ended.
 */

/** Containers that are taken, by media type, and the one demuxer that reads each. */
const DEMUXERS: Readonly<Record<string, string>> = { 'video/mp4': 'mov', 'video/webm': 'matroska' };

const MEMORY_BYTES = 4 * 2 ** 30;
const CPU_SECONDS = 3600;
const PROBE_WITHIN_MS = 60_000;
const STILL_FOR_MS = 120_000;

/** The part of the command that reads a film. */
export const inputOf = (path: string, type: string): string[] => [
  ...['-protocol_whitelist', 'file', '-f', DEMUXERS[type] ?? 'mov', '-i', `file:${path}`],
];

const limited = (program: string, args: readonly string[]): [string, string[]] => [
  'prlimit',
  [`--as=${MEMORY_BYTES}`, `--cpu=${CPU_SECONDS}`, '--core=0', '--', program, ...args],
];

const run = promisify(execFile);

/** Runs one of the tools to its end; within a minute. Throws where it fails. */
export const runTool = (program: 'ffmpeg' | 'ffprobe', args: readonly string[]) => {
  const [command, all] = limited(program, args);
  return run(command, all, { timeout: PROBE_WITHIN_MS, killSignal: 'SIGKILL', maxBuffer: 16 * 2 ** 20 });
};

/** Runs ffmpeg for as long as it moves; `heard` gets what it writes. Whether it came to a good end. */
export async function runFfmpeg(args: readonly string[], heard: (text: string) => void): Promise<boolean> {
  const [command, all] = limited('ffmpeg', args);
  const child = spawn(command, all, { stdio: ['ignore', 'pipe', 'ignore'] });
  let still = setTimeout(() => child.kill('SIGKILL'), STILL_FOR_MS);
  child.stdout.on('data', (text: Buffer) => {
    clearTimeout(still);
    still = setTimeout(() => child.kill('SIGKILL'), STILL_FOR_MS);
    heard(text.toString());
  });
  const code = await new Promise<number | null>((done, failed) => child.once('error', failed).once('close', done));
  clearTimeout(still);
  return code === 0;
}
