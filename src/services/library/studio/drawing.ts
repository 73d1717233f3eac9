/** What the process that draws does (`bin/draw.mjs`): paths in, plain values out. */

/** What a picture is, by its bytes. Sizes in pixels, as they are stored. */
export interface Looked {
  readonly width: number;
  readonly height: number;
  readonly format: string;
  /** EXIF 2.3, 1 to 8. */
  readonly orientation: number;
  /** More than one for what moves. */
  readonly frames: number;
  /** How long all pictures of what moves last, in milliseconds; null for what does not. */
  readonly roundMs: number | null;
  /** Whether it carries more than its pixels: a camera's notes, a colour profile. */
  readonly hasNotes: boolean;
}

export interface Drawing {
  look(path: string): Looked;
  /** Decodes all of a picture: the only proof that its header tells the truth. */
  decode(path: string): void;
  /** A small JPEG. */
  thumbnail(source: string, target: string): void;
  /** The pixels alone, turned the way they are meant to be seen, in sRGB, in the same format. */
  plain(source: string, target: string): void;
  /** The pixels alone of a photograph that is upright already, in sRGB, as JPEG; as PNG where some of it is not to be seen. */
  photo(source: string, target: string): void;
  /** A smaller one, in pixels: as PNG what has hard edges and is small, else as WebP. */
  scaled(source: string, target: string, width: number, height: number): void;
  /** Vectors as large as the largest screens need, as PNG. Nothing outside the file is read, and no script is run. */
  drawn(source: string, target: string): void;
}

/** Pictures of more pixels are not read. */
export const MOST_PIXELS = 100e6;
