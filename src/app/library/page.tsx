import { LibraryPage } from '@/ui/library/LibraryPage';

export default function Page() {
  return <LibraryPage />;
}
