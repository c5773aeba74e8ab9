'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Component, type ErrorInfo, type ReactNode } from 'react';
import { copyDetails } from '@/ui/actions/tell';
import { useOpenJobLater, useWorkLater } from '@/ui/following';

interface Props<Anew> {
  /** What it is that may fail: "The plan", "The sheet". */
  readonly part: string;
  /** When this changes, it is tried again. */
  readonly anew?: Anew;
  readonly children: ReactNode;
}
interface State {
  readonly error: Error | null;
  readonly anew: unknown;
}

/**
 * Keeps a fault in one part of the window from taking the rest along: the part says so, and is tried again when the job or its
 * proof has changed. It follows these by itself, so that who stands around it need not be drawn with each change.
 */
export function Guarded({ anew, ...fence }: Props<'job' | 'proof'>): ReactNode {
  const job = useOpenJobLater((s) => (anew === 'job' ? s.job : null));
  const proof = useWorkLater((w) => (anew === 'proof' ? w.proof : null));
  return <Fence {...fence} anew={job ?? proof} />;
}

class Fence extends Component<Props<unknown>, State> {
  state: State = { error: null, anew: this.props.anew };

  static getDerivedStateFromError(error: Error): Partial<State> {
    return { error };
  }
  static getDerivedStateFromProps(props: Props<unknown>, state: State): Partial<State> | null {
    return props.anew === state.anew ? null : { error: null, anew: props.anew };
  }
  componentDidCatch(error: Error, info: ErrorInfo): void {
    console.error(error, info.componentStack);
  }
  render(): ReactNode {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <Box
        role="alert"
        sx={{
          flex: 1,
          p: 3,
          display: 'flex',
          flexDirection: 'column',
          alignItems: 'flex-start',
          justifyContent: 'center',
          gap: 1.5,
          maxWidth: 460,
          mx: 'auto',
        }}
      >
        <Typography variant="h3">{this.props.part} cannot be shown</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          This is a fault of Mirvak, not of your job, which is safe. Undo the last change, or try again. The details
          help whoever mends it.
        </Typography>
        <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
          <Button variant="contained" onClick={() => this.setState({ error: null })}>
            Try again
          </Button>
          <Button color="inherit" onClick={() => copyDetails(error)}>
            Copy the details
          </Button>
        </Box>
      </Box>
    );
  }
}
