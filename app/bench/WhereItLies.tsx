import Button from '@mui/material/Button';
import { useRevalidator } from 'react-router';
import { type StorageRoom, askToLast, sayBytes } from '../store/storage';

/** What the browser keeps, how much room there is, and whether it promised to keep it. */
export function WhereItLies({ room }: { room: StorageRoom }) {
  const revalidator = useRevalidator();
  const { used, left, lasting } = room;
  return (
    <section className="section">
      <h2>Where it lies</h2>
      <p className="quiet">
        What you log lies in this browser, at this address ({window.location.host}). Another port, host name
        or browser has benches of its own: a backup takes it there.
      </p>
      {used !== null && (
        <p>
          {sayBytes(used)} used{left !== null && `, ${sayBytes(left)} left`}.
          {left !== null &&
            left < 200_000_000 &&
            ' That is little: export and delete trials you no longer need.'}
        </p>
      )}
      {lasting === false && (
        <p className="inline-row">
          <span>The browser may clear it when the device runs out of room.</span>
          <Button
            size="small"
            color="secondary"
            onClick={() => void askToLast().then(() => revalidator.revalidate())}
          >
            Ask it to keep everything
          </Button>
        </p>
      )}
      {lasting === true && <p>The browser keeps it until you clear it yourself.</p>}
    </section>
  );
}
