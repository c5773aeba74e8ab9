'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { storageMessage } from '@/store/db';
import { Library } from './Library';
import { useLibrary } from './useLibrary';

/** The tool library as a page of its own. */
export function LibraryPage() {
  const router = useRouter();
  const [ready, setReady] = useState(false);
  const [trouble, setTrouble] = useState('');
  useEffect(() => {
    document.title = 'Tool library \u00b7 Mirvak';
    useLibrary
      .getState()
      .load()
      .catch((e) => setTrouble(storageMessage(e)))
      .finally(() => setReady(true));
  }, []);
  return (
    <Box component="main" sx={{ height: 'var(--page-height, 100vh)', bgcolor: 'background.paper' }}>
      {trouble && (
        <Box role="alert" sx={{ p: 1.5, color: 'error.main' }}>
          {trouble}
        </Box>
      )}
      {ready && (
        <Library
          onClose={
            <Button color="inherit" onClick={() => router.push('/')}>
              Job shelf
            </Button>
          }
        />
      )}
    </Box>
  );
}
