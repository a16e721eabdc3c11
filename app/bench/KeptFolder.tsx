import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { useRevalidator } from 'react-router';
import { sayStorageFault } from '../store/errors';
import {
  allowFolder,
  canKeepFolder,
  chooseFolder,
  keptFolder,
  leaveFolder,
  updateFolder,
} from '../store/folder';

/** A folder, chosen once, that the backup is written into by itself. Nothing where the browser can't. */
export function KeptFolder() {
  const revalidator = useRevalidator();
  const [folder, setFolder] = useState<Awaited<ReturnType<typeof keptFolder>>>(null);
  const [fault, setFault] = useState('');
  const look = () => keptFolder().then(setFolder);
  useEffect(() => void keptFolder().then(setFolder), []);
  const act = async (run: () => Promise<unknown>) => {
    setFault('');
    try {
      await run();
      await updateFolder();
    } catch (e) {
      setFault(`The folder wasn’t written: ${sayStorageFault(e)}`);
    }
    await look();
    await revalidator.revalidate();
  };
  if (!canKeepFolder()) return null;
  return (
    <div style={{ marginTop: '0.9rem' }}>
      {folder === null ? (
        <p className="inline-row">
          <Button variant="outlined" color="secondary" onClick={() => void act(chooseFolder)}>
            Keep a folder up to date …
          </Button>
          <span className="small quiet">
            Chosen once, it gets the backup by itself while Palazzo is open, without keys.
          </span>
        </p>
      ) : (
        <p className="inline-row" role="status">
          <span>
            {folder.allowed
              ? `The folder “${folder.name}” is kept up to date.`
              : `The browser asks again before the folder “${folder.name}” is written.`}
          </span>
          {!folder.allowed && (
            <Button size="small" color="secondary" onClick={() => void act(allowFolder)}>
              Allow it
            </Button>
          )}
          <Button size="small" color="inherit" onClick={() => void leaveFolder().then(look)}>
            Leave it
          </Button>
        </p>
      )}
      {fault !== '' && (
        <p role="alert" className="warning">
          {fault}
        </p>
      )}
    </div>
  );
}
