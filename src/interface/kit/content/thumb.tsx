import type { Fit } from '@/core/plan';

/** How a picture is placed in a box of another shape. Pixel for pixel has no meaning in a small picture: it is shown whole. */
export const FIT_CLASSES: Readonly<Record<Fit, string>> = {
  ...{ whole: '', fill: '!object-cover', stretch: '!object-fill', exact: '' },
};

/** A media file's picture in its own aspect; a hatch where there is none. An empty `alt` is for a picture beside its name. */
export function Thumb({ src, alt, className = '' }: { src: string | undefined; alt: string; className?: string }) {
  if (src)
    return (
      <img src={src} alt={alt} decoding="async" draggable={false} className={`bg-well object-contain ${className}`} />
    );
  const spoken = alt === '' ? { 'aria-hidden': true } : { role: 'img', 'aria-label': alt };
  return <div {...spoken} className={`hatch bg-well text-faint ${className}`} />;
}
