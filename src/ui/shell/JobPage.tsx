'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { usePathname } from 'next/navigation';
import { useEffect, useState, type ComponentType } from 'react';
import { Opening } from './Opening';
import { bringWorkbench } from './pieces';

/** The job that the address names: a page that the browser has kept is the same for all of them. */
export function JobPage() {
  const id = decodeURIComponent(usePathname().split('/')[2] ?? '');
  const [Workbench, setWorkbench] = useState<ComponentType<{ id: string }> | null>(null);
  const [lacking, setLacking] = useState(false);
  useEffect(() => {
    let live = true;
    bringWorkbench().then(
      (here) => live && setWorkbench(() => here),
      (e) => {
        console.error(e);
        if (live) setLacking(true);
      },
    );
    return () => {
      live = false;
    };
  }, []);
  if (lacking)
    return (
      <Box component="main" sx={{ p: 6, maxWidth: 620 }}>
        <Typography variant="h1">The workbench did not come</Typography>
        <Typography sx={{ my: 2 }}>
          A part of Mirvak did not come from the app&rsquo;s server. Start it again, if it was stopped; then load this
          page anew. Your jobs are on this device as they were.
        </Typography>
        <Button variant="contained" onClick={() => location.reload()}>
          Load the page anew
        </Button>
      </Box>
    );
  return Workbench ? <Workbench id={id} /> : <Opening />;
}
