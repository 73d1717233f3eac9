import type { Metadata } from 'next';
import { PlanPlace } from '@/interface/plan/plan-place';

export const metadata: Metadata = { title: 'Plan' };

export default function PlanPage() {
  return <PlanPlace />;
}
