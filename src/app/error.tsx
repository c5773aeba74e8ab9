'use client';
import { FaultPage } from '@/ui/shell/FaultPage';

export default function ErrorPage({ error, reset }: { error: Error; reset: () => void }) {
  return <FaultPage error={error} again={reset} />;
}
