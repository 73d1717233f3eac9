import sharp from 'sharp';
import { Refusal } from '@/core/refusal';

/** More can't be a display's, or a phone's. */
const MOST_PIXELS = 16_000 * 9000;
const QUALITY = 72;

/**
 * A picture that a person sent, upright, as a JPEG whose longer side has at most so many pixels. It is decoded and encoded again, so that what is
 * stored holds pixels and nothing else: no place, no name. Throws 422 for what is no JPEG, PNG or WebP, or is damaged.
 */
export async function smallPicture(sent: Uint8Array, longerSide: number): Promise<Buffer> {
  const picture = sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
  const format = await picture.metadata().then(
    (metadata) => metadata.format,
    () => undefined,
  );
  // Only what browsers and devices make: anything else, a drawing among them, would ask more of what decodes it.
  if (format !== 'jpeg' && format !== 'png' && format !== 'webp')
    throw new Refusal(422, 'This isn’t a picture. Send JPEG, PNG or WebP.');
  return picture
    .autoOrient()
    .flatten({ background: '#000' })
    .resize(longerSide, longerSide, { fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: QUALITY })
    .toBuffer()
    .catch(() => {
      throw new Refusal(422, 'This picture is damaged. Send it again.');
    });
}
