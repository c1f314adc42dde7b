import type { SetDocument } from '@fendrix/contract';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { memo } from 'react';
import { Tag } from '../../../../shared/Tag';
import { IN_FRAME, useAtRest } from '../../picture/useAtRest';
import { benchActions } from '../../state/benchSlice';
import { nameOf, type ThingRef } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { comesIn } from './InFrameNote';
import { RowCommands } from './RowCommands';

/** Everything that stands on the set, to be selected: what the side shows while nothing is. */
export const ThingsOnSet = memo(function ThingsOnSet({ set }: { set: SetDocument }) {
  const dispatch = useBenchDispatch();
  const inFrame = useAtRest(IN_FRAME);
  return (
    <Box component="section" aria-label="On the set">
      <Box component="h2" sx={{ m: 0, mb: 0.25, fontSize: '0.8125rem', fontWeight: 650 }}>
        On the set
      </Box>
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {thingsOf(set).map(({ thing, tag, off }) => (
          <li key={`${thing.kind} ${thing.key}`}>
            <ButtonBase
              onClick={() => dispatch(benchActions.selected(thing))}
              sx={{
                width: '100%',
                justifyContent: 'flex-start',
                gap: 0.75,
                minHeight: 27,
                font: 'inherit',
                fontSize: '0.8125rem',
                textAlign: 'left',
                borderBottom: 1,
                borderColor: 'divider',
                color: off ? 'text.secondary' : 'text.primary',
              }}
            >
              {tag && <Tag>{tag}</Tag>}
              {nameOf(set, thing)}
              {off && ', off'}
              {comesIn(inFrame, thing) && ', in the picture'}
            </ButtonBase>
          </li>
        ))}
      </Box>
      <RowCommands set={set} />
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 0.75 }}>
        Press one, or point at it in a plan. Point at the picture to learn what that spot mirrors.
      </Box>
    </Box>
  );
});

interface Listed {
  thing: ThingRef;
  tag?: string;
  off?: boolean;
}

/** Products, lights, sheets, people, camera, then what all of it stands on and in. */
function thingsOf({ products, lights, sheets, people, bench, backdrop, room }: SetDocument): Listed[] {
  return [
    ...products.map(({ id }): Listed => ({ thing: { kind: 'product', key: id } })),
    ...lights.map(({ tag, on }): Listed => ({ thing: { kind: 'light', key: tag }, tag, off: !on })),
    ...sheets.map(({ tag }): Listed => ({ thing: { kind: 'sheet', key: tag }, tag })),
    ...people.map(({ name }): Listed => ({ thing: { kind: 'person', key: name } })),
    { thing: { kind: 'camera', key: '' } },
    ...(bench ? [{ thing: { kind: 'bench', key: '' } } as const] : []),
    ...(backdrop ? [{ thing: { kind: 'backdrop', key: '' } } as const] : []),
    ...(room ? [{ thing: { kind: 'room', key: '' } } as const] : []),
  ];
}
