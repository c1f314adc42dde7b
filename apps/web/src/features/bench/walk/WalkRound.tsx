import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Canvas } from '@react-three/fiber';
import { Component, type ReactNode, useState } from 'react';
import { surround } from '../../../shared/theme';
import { useSet } from '../state/hooks';
import { SetInSpace } from './SetInSpace';
import { VIEWPOINTS, type Viewpoint } from './viewpoints';

/** The set in three dimensions, to walk round and to grab; shapes only, the lens view shows the light. */
export default function WalkRound() {
  const [lost, setLost] = useState(() => !drawsInSpace());
  const [round, setRound] = useState(0);
  const [viewpoint, setViewpoint] = useState<{ name: Viewpoint; asked: number }>({
    name: 'over the shoulder',
    asked: 0,
  });
  const name = useSet().name;
  const again = () => {
    setLost(!drawsInSpace());
    setRound(round + 1);
  };
  if (lost) return <NoSpace onAgain={again} />;
  return (
    <Box
      role="group"
      aria-label={`${name}, in three dimensions`}
      sx={{ position: 'relative', height: '100%', minHeight: 320 }}
      data-testid="walk-round"
    >
      <IfItBreaks key={round} onBreak={() => setLost(true)}>
        <Canvas
          frameloop="demand"
          dpr={1}
          gl={{ antialias: true, powerPreference: 'low-power' }}
          camera={{ fov: 45, near: 0.02, far: 60, up: [0, 0, 1], position: [1.2, -1.6, 1.2] }}
          onCreated={({ gl }) => {
            gl.domElement.addEventListener('webglcontextlost', (event) => {
              event.preventDefault();
              setLost(true);
            });
          }}
        >
          <SetInSpace viewpoint={viewpoint} />
        </Canvas>
      </IfItBreaks>
      <Box
        sx={{ position: 'absolute', left: 8, right: 8, top: 8, display: 'flex', flexWrap: 'wrap', gap: 0.5 }}
      >
        {VIEWPOINTS.map((own) => (
          <Button
            key={own}
            size="small"
            onClick={() => setViewpoint({ name: own, asked: viewpoint.asked + 1 })}
            sx={{
              color: surround.text,
              bgcolor: surround.raised,
              py: 0,
              '&:hover': { bgcolor: surround.raisedOver },
            }}
          >
            {own}
          </Button>
        ))}
      </Box>
      <Box
        sx={{
          position: 'absolute',
          left: 8,
          right: 8,
          bottom: 6,
          color: surround.quiet,
          fontSize: '0.75rem',
          pointerEvents: 'none',
          bgcolor: surround.over,
          px: 0.75,
        }}
      >
        Drag to walk round, turn the wheel to come closer, drag a thing to move it along the floor. Shapes
        only: the lens view shows the light. By keyboard move things in the plans.
      </Box>
    </Box>
  );
}

/** Whether this browser draws in three dimensions at all; by software is enough. */
function drawsInSpace(): boolean {
  try {
    return document.createElement('canvas').getContext('webgl2') !== null;
  } catch {
    return false;
  }
}

function NoSpace({ onAgain }: { onAgain(): void }) {
  return (
    <Box role="status" sx={{ p: 3, color: surround.text, maxWidth: 420 }}>
      <Box component="h2" sx={{ m: 0, mb: 1, fontSize: '0.9375rem' }}>
        No third dimension here
      </Box>
      This browser cannot draw the set in three dimensions (WebGL 2 is missing or was taken away). Nothing
      else needs it: the plans from above and from the side hold every position, and the lens view goes on as
      before.
      <Box sx={{ mt: 1 }}>
        <Button size="small" onClick={onAgain} sx={{ color: surround.accent, px: 0 }}>
          Try again
        </Button>
      </Box>
    </Box>
  );
}

/** A renderer that cannot start must not take the bench with it. */
class IfItBreaks extends Component<{ onBreak(): void; children: ReactNode }, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError(): { broken: boolean } {
    return { broken: true };
  }

  override componentDidCatch(): void {
    this.props.onBreak();
  }

  override render(): ReactNode {
    return this.state.broken ? null : this.props.children;
  }
}
