import type { Wishes } from '@fendrix/contract';
import { WISH_WORDS, type WishName } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { memo, useState } from 'react';
import { useBenchDispatch, useSetPart } from '../state/hooks';
import { edit } from '../state/thunks';
import { LikePicture } from './LikePicture';
import { SideHeading } from './SideHeading';
import { isDrawn, WishDrawing } from './WishDrawing';
import { WishFigures } from './WishFigures';

/** What is wanted of the picture, as words with a small drawing; two presses change one. */
export const WishesRow = memo(function WishesRow() {
  const wishes = useSetPart((set) => set.wishes);
  const [menu, setMenu] = useState<{ name: WishName; anchor: HTMLElement } | null>(null);
  const [all, setAll] = useState(false);
  const dispatch = useBenchDispatch();
  const names = Object.keys(WISH_WORDS) as WishName[];
  const shown = names.filter((name) =>
    name === 'gradientTowards' ? wishes.ground === 'gradient' : all || wishes[name] !== 'open',
  );
  const choose = (name: WishName, choice: string) => {
    setMenu(null);
    dispatch(edit((set) => ({ ...set, wishes: { ...set.wishes, [name]: choice } as Wishes })));
  };
  return (
    <Box component="section" aria-label="Wanted">
      <SideHeading>Wanted</SideHeading>
      <Box data-testid="wishes" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
        {shown.map((name) => (
          <Button
            key={name}
            size="small"
            variant="outlined"
            color="inherit"
            aria-haspopup="menu"
            onClick={({ currentTarget }) => setMenu({ name, anchor: currentTarget })}
            startIcon={isDrawn(name) ? <WishDrawing name={name} choice={wishes[name]} /> : undefined}
            sx={{
              py: 0,
              px: 0.75,
              fontWeight: 400,
              textAlign: 'left',
              borderColor: 'divider',
              '& .MuiButton-startIcon': { mr: 0.5 },
            }}
          >
            {wishWords(name, wishes[name])}
          </Button>
        ))}
        <Button
          size="small"
          color="inherit"
          sx={{ py: 0, color: 'text.secondary' }}
          onClick={() => setAll(!all)}
        >
          {all ? 'fewer' : 'more'}
        </Button>
      </Box>
      {all && <WishFigures wishes={wishes} />}
      {(all || wishes.like) && <LikePicture like={wishes.like} />}
      <Menu open={menu !== null} anchorEl={menu?.anchor} onClose={() => setMenu(null)}>
        {menu &&
          Object.entries(WISH_WORDS[menu.name].choices).map(([choice, words]) => (
            <MenuItem
              key={choice}
              dense
              selected={wishes[menu.name] === choice}
              onClick={() => choose(menu.name, choice)}
              sx={{ gap: 1 }}
            >
              {isDrawn(menu.name) && <WishDrawing name={menu.name} choice={choice} />}
              {words}
            </MenuItem>
          ))}
      </Menu>
    </Box>
  );
});

function wishWords(name: WishName, choice: string): string {
  const { label, choices } = WISH_WORDS[name];
  return `${label}: ${(choices as Record<string, string>)[choice] ?? choice}`;
}
