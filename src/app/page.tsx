import { JobShelf } from '@/ui/shelf/JobShelf';

export default function Page() {
  return <JobShelf />;
}
