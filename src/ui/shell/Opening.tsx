import Box from '@mui/material/Box';
import CircularProgress from '@mui/material/CircularProgress';

/** Stands where the workbench will be. */
export function Opening() {
  return (
    <Box sx={{ height: 'var(--page-height, 100vh)', display: 'grid', placeItems: 'center' }}>
      <CircularProgress aria-label="Opening the job" />
    </Box>
  );
}
