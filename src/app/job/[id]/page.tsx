import { JobPage } from '@/ui/shell/JobPage';

export default function Page() {
  return <JobPage />;
}
