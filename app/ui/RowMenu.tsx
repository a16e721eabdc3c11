import { MoreVertIcon } from './icons';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';

/** What can be done with a row but seldom is: a thumb that passes finds nothing to press by mistake. */
export function RowMenu({ label, acts }: { label: string; acts: { text: string; act: () => void }[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <IconButton
        aria-label={label}
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        <MoreVertIcon />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {acts.map(({ text, act }) => (
          <MenuItem
            key={text}
            onClick={() => {
              setAnchor(null);
              act();
            }}
          >
            {text}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
