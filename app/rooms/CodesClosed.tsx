import { Link } from 'react-router';

/** Stands where a room would give away which code is which. */
export function CodesClosed({
  trialId,
  title,
  children,
}: {
  trialId: string;
  title: string;
  children?: React.ReactNode;
}) {
  return (
    <div className="empty">
      <h1>{title}</h1>
      <p style={{ marginTop: '0.6rem' }}>
        The trial is blind and its codes are closed. Findings can be seen by code; who won, and for what
        money, is shown when the codes are opened.
      </p>
      <p>
        <Link to={`/trial/${trialId}/layout`}>Open the codes in Layout</Link> ·{' '}
        <Link to={`/trial/${trialId}/findings`}>Findings by code</Link>
      </p>
      {children}
    </div>
  );
}
