import type { Metadata } from 'next';
import { TablePlace } from '@/interface/screens/table/table-place';

export const metadata: Metadata = { title: 'Table of screens' };

export default function TablePage() {
  return <TablePlace />;
}
