import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import { type ReactNode, createContext, useCallback, useContext, useEffect, useMemo, useState } from 'react';

interface Notice {
  text: string;
  undo?: () => void | Promise<void>;
}

const announcements = new EventTarget();

/** Says something from outside React: how an action answers when several are under way. */
export function announce(text: string): void {
  announcements.dispatchEvent(new CustomEvent('say', { detail: text }));
}

const NoticeContext = createContext<(notice: Notice) => void>(() => {});

/** Says that something was done, with an Undo where it can be taken back. */
export const useNotice = () => useContext(NoticeContext);

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<(Notice & { n: number }) | null>(null);
  const show = useCallback((next: Notice) => setNotice((old) => ({ ...next, n: (old?.n ?? 0) + 1 })), []);
  const close = useMemo(() => () => setNotice((old) => (old ? null : old)), []);
  useEffect(() => {
    const onSay = (e: Event) => show({ text: (e as CustomEvent<string>).detail });
    announcements.addEventListener('say', onSay);
    return () => announcements.removeEventListener('say', onSay);
  }, [show]);
  const undo = notice?.undo;
  return (
    <NoticeContext value={show}>
      {children}
      <Snackbar
        key={notice?.n ?? 0}
        open={notice !== null}
        autoHideDuration={undo ? 12_000 : 4_000}
        onClose={(_, reason) => reason !== 'clickaway' && close()}
        message={notice?.text}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
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
