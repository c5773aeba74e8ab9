'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Remark } from '@/core/cuts/kind';
import { MendButton } from '@/ui/common/MendButton';
import { setView } from '@/ui/view';

/** What a plan says about its cut: where it is, and what can be done about it. */
export function Remarks({ cutId, remarks }: { cutId: string; remarks: readonly Remark[] }) {
  return remarks.map((r, i) => (
    <Box key={`${r.text} ${i}`} sx={{ mt: 1 }}>
      <Typography variant="body2" sx={{ color: r.level === 'problem' ? 'error.main' : 'text.secondary' }}>
        {r.text}
      </Typography>
      {r.mend && <MendButton mend={r.mend} cutId={cutId} x={r.x ?? null} y={r.y ?? null} />}
      {r.x !== undefined && r.y !== undefined && (
        <Button
          size="small"
          sx={{ ml: -0.75, minHeight: 26 }}
          onClick={() =>
            setView((v) => ({
              marked: { x: r.x!, y: r.y!, text: r.text },
              table: v.table === 'solid' ? 'both' : v.table,
            }))
          }
        >
          Show me
        </Button>
      )}
    </Box>
  ));
}
