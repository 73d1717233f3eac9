import type { Metadata } from 'next';
import { FileById } from '@/interface/library/file-page';

export const metadata: Metadata = { title: 'File' };

export default async function FilePage({ params }: { params: Promise<{ id: string }> }) {
  return <FileById id={(await params).id} />;
}
