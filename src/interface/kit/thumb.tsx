/** A media file's picture in its own aspect; a hatch where there is none. */
export function Thumb({ src, alt, className = '' }: { src: string | undefined; alt: string; className?: string }) {
  if (!src) return <div role="img" aria-label={alt} className={`hatch bg-well text-faint ${className}`} />;
  return (
    <img src={src} alt={alt} decoding="async" draggable={false} className={`bg-well object-contain ${className}`} />
  );
}
