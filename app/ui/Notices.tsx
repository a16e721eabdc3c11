import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { type ReactNode, createContext, useCallback, useContext, useEffect, useMemo, useState } from 'react';
import { onAnnouncement } from './announce';

interface Notice {
  text: string;
  undo?: () => void | Promise<void>;
}

const NoticeContext = createContext<(notice: Notice) => void>(() => {});

/** Says that something was done, with an Undo where it can be taken back. */
export const useNotice = () => useContext(NoticeContext);

/** Nothing lies in the way of what is pressed beneath: only Undo is to be pressed. */
const untouched = {
  ...{ pointerEvents: 'none', '& .MuiPaper-root': { pointerEvents: 'none' } },
  '& button': { pointerEvents: 'auto' },
} as const;

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<(Notice & { n: number }) | null>(null);
  const show = useCallback((next: Notice) => setNotice((old) => ({ ...next, n: (old?.n ?? 0) + 1 })), []);
  const close = useMemo(() => () => setNotice((old) => (old ? null : old)), []);
  useEffect(() => onAnnouncement((text) => show({ text })), [show]);
  const undo = notice?.undo;
  return (
    <NoticeContext value={show}>
      {children}
      <Snackbar
        key={notice?.n ?? 0}
        open={notice !== null}
        autoHideDuration={undo ? 12_000 : 7_000}
        onClose={(_, reason) => reason !== 'clickaway' && close()}
        message={notice?.text}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
        sx={untouched}
        action={
          undo && (
            <Button
              size="small"
              color="inherit"
              onClick={() => {
                close();
                void undo();
              }}
            >
              Undo
            </Button>
          )
        }
      />
    </NoticeContext>
  );
}
