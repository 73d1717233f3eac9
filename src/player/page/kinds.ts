import type { Report } from '@/protocol/schemas';

/** What videos and sounds commonly come as: RFC 6381 names of each codec in the container in which players get it. */
const VIDEOS = {
  h264: 'video/mp4; codecs="avc1.42E01E"',
  hevc: 'video/mp4; codecs="hvc1.1.6.L93.B0"',
  vp8: 'video/webm; codecs="vp8"',
  vp9: 'video/webm; codecs="vp9"',
  av1: 'video/mp4; codecs="av01.0.04M.08"',
};
const SOUNDS = ['audio/mp4; codecs="mp4a.40.2"', 'audio/mpeg'];

/** The kinds of files and the video codecs that this browser says it plays (HTML: `canPlayType`, which is empty for no). */
export function played(canPlay: (type: string) => string): Required<Pick<Report, 'kinds' | 'codecs'>> {
  const plays = (type: string) => canPlay(type) !== '';
  const codecs = Object.entries(VIDEOS).flatMap(([codec, type]) => (plays(type) ? [codec] : []));
  const { h264, vp9 } = VIDEOS;
  return {
    // A browser that plays neither of the two common codecs gets hardly a video that it can play.
    kinds: [
      'image',
      ...([h264, vp9].some(plays) ? (['video'] as const) : []),
      ...(SOUNDS.some(plays) ? (['sound'] as const) : []),
    ],
    codecs,
  };
}
