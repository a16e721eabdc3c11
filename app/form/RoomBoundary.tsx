import Button from '@mui/material/Button';
import {
  Outlet,
  isRouteErrorResponse,
  useLocation,
  useNavigate,
  useRevalidator,
  useRouteError,
} from 'react-router';
import { keepRescued } from './rescued';

/** A room stands in its frame whatever happens in it. */
export default function RoomBoundary() {
  return <Outlet />;
}

/** What went wrong in a room: the frame around it, the other rooms and what was typed stay. */
export function ErrorBoundary() {
  const error = useRouteError();
  const { pathname, search } = useLocation();
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  const gone = isRouteErrorResponse(error) && error.status === 404;
  const text = isRouteErrorResponse(error)
    ? String(error.data || 'This page isn’t here.')
    : error instanceof Error
      ? error.message
      : String(error);
  const typed = keepRescued(pathname);
  return (
    <div className="empty" role="alert">
      <h1>{gone ? 'Nothing here' : 'Something went wrong in this room'}</h1>
      <p>{text}</p>
      <p>
        What was kept stays as it is; the other rooms go on.
        {typed && ' What you had typed here, and not saved, is put back when the room opens again.'}
      </p>
      {!gone && (
        <Button
          variant="contained"
          disabled={revalidator.state !== 'idle'}
          onClick={() => void navigate(`${pathname}${search}`, { replace: true })}
        >
          Open the room again
        </Button>
      )}
    </div>
  );
}
