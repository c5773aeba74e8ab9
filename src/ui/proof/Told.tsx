'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Finding } from '@/core/proof/check';
import { MendButton } from '@/ui/common/MendButton';
import { setView } from '@/ui/view';

const show = (f: Finding) => {
  if (f.x !== null && f.y !== null)
    setView((v) => ({ marked: { x: f.x!, y: f.y!, text: f.text }, table: v.table === 'solid' ? 'both' : v.table }));
  if (f.cutId) setView({ cutId: f.cutId });
};

/** What was found, what can be done about it, and the places where it is. */
export function Told({ finding: f }: { finding: Finding }) {
  return (
    <Box sx={{ mt: 0.25 }}>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {f.text}
      </Typography>
      {f.mend && <MendButton mend={f.mend} cutId={f.cutId} x={f.x} y={f.y} />}
      {(f.x !== null || f.cutId) && (
        <Button size="small" sx={{ ml: -0.75, minHeight: 26 }} onClick={() => show(f)}>
          Show me
        </Button>
      )}
      {(f.places ?? []).slice(1).map((p, i) => (
        <Button
          key={i}
          size="small"
          sx={{ minHeight: 26, minWidth: 0, px: 0.75 }}
          aria-label={`Show place ${i + 2}`}
          onClick={() => show({ ...f, ...p })}
        >
          {i + 2}
        </Button>
      ))}
    </Box>
  );
}
