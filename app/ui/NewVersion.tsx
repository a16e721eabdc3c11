import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import type { Workbox } from 'workbox-window';

/**
 * Keeps the app on this device, so that it opens without a server, and says when a newer one is there. It is taken
 * when somebody asks for it: nobody is thrown out of a walk.
 */
export function NewVersion() {
  const [waiting, setWaiting] = useState<Workbox | null>(null);
  const [replaced, setReplaced] = useState(false);
  useEffect(() => {
    if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
    let gone = false;
    const start = async () => {
      const { Workbox } = await import('workbox-window');
      if (gone) return;
      const workbox = new Workbox('/sw.js');
      workbox.addEventListener('waiting', () => setWaiting(workbox));
      workbox.addEventListener('controlling', ({ isUpdate }) => {
        // Somebody took the new one: here too it is loaded when it suits.
        if (isUpdate) setReplaced(true);
      });
      // Without storage, or in private mode, the app works as before, with a server.
      await workbox.register().catch(() => undefined);
    };
    // After the first screen: keeping copies isn't what anybody waits for.
    const later = window.setTimeout(() => void start(), 1500);
    return () => {
      gone = true;
      window.clearTimeout(later);
    };
  }, []);
  if (!waiting && !replaced) return null;
  return (
    <div role="status" className="new-version no-print">
      <span>{replaced ? 'Another tab took the new version.' : 'A new version of Palazzo is ready.'}</span>
      <Button
        size="small"
        variant="outlined"
        color="secondary"
        onClick={() => {
          if (replaced || !waiting) return window.location.reload();
          waiting.addEventListener('controlling', () => window.location.reload());
          waiting.messageSkipWaiting();
        }}
      >
        {replaced ? 'Load it here' : 'Take it now'}
      </Button>
      {!replaced && (
        <Button size="small" color="inherit" onClick={() => setWaiting(null)}>
          Later
        </Button>
      )}
    </div>
  );
}
