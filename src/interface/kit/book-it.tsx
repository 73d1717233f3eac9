import Link from 'next/link';

/** Leads to a new booking of a content, as `contentValue` writes it. */
export const BookIt = ({ content }: { content: string }) => (
  <Link
    href={`/plan?what=${encodeURIComponent(content)}`}
    className="inline-block py-1 text-tide underline underline-offset-2"
  >
    Book it
  </Link>
);
