import Button from '@mui/material/Button';
import { Link, useLoaderData } from 'react-router';
import { RoomHead } from '../../ui/RoomHead';
import { loadRehearsal, rehearsalAction } from './rehearsalData';
import { RehearsalRoom } from './RehearsalRoom';
export const clientLoader = loadRehearsal;
export const clientAction = rehearsalAction;

export default function Rehearsal() {
  const data = useLoaderData<typeof clientLoader>();
  if (data.ready) return <RehearsalRoom key={data.id} {...data} />;
  return (
    <div className="empty">
      <RoomHead title="Rehearsal">
        Before anything is sown, the trial is run a few thousand times on paper.
      </RoomHead>
      <p>
        How often would this very plan name the right winner, and how often a false one? That needs two
        contenders, one of them a control.
      </p>
      <Button variant="contained" component={Link} to={`/trial/${data.id}/contenders`}>
        Name the contenders
      </Button>
    </div>
  );
}
