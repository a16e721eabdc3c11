import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import QRCode from 'qrcode';
import { useState } from 'react';
import { Link, useLoaderData } from 'react-router';
import { walkOrder } from '~core/design/layOut';
import { shortDate } from '../../bench/clock';
import { loadTrial } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import { Tessera, tesseraLetter } from '../../ui/Tessera';
import type { RoomArgs } from '../roomArgs';
import './labels.css';

export async function clientLoader({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  const { plan } = row;
  const units = walkOrder(plan.units, state.positions);
  const codes = await Promise.all(
    units.map((u) => QRCode.toDataURL(u.code, { margin: 0, scale: 4, errorCorrectionLevel: 'M' })),
  );
  return { plan, labels: units.map((unit, i) => ({ unit, qr: codes[i]! })) };
}

/** A sheet of labels, one a unit: tile, letter, code and QR. Printed by the browser. */
export default function Labels() {
  const { plan, labels } = useLoaderData<typeof clientLoader>();
  const [columns, setColumns] = useState(3);
  const [paper, setPaper] = useState('A4');
  const indexOf = (id: string) => plan.treatments.findIndex((t) => t.id === id);
  return (
    <main className="labels-page" id="room">
      <div className="no-print">
        <RoomHead
          title="Labels"
          actions={
            <>
              <Button component={Link} to={`/trial/${plan.id}/layout`} color="secondary">
                Back to the layout
              </Button>
              <Button variant="contained" onClick={() => window.print()}>
                Print the labels
              </Button>
            </>
          }
        >
          One for every {plan.unitNoun}, in walking order. Stick them on before anything is filled: identities
          get lost at transplanting.
        </RoomHead>
        <div className="line" style={{ margin: '0 0 1.2rem' }}>
          <TextField
            select
            label="Labels across"
            value={columns}
            onChange={(e) => setColumns(Number(e.target.value))}
            sx={{ width: 140 }}
          >
            {[2, 3, 4].map((n) => (
              <MenuItem key={n} value={n}>
                {n}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="Paper"
            value={paper}
            onChange={(e) => setPaper(e.target.value)}
            sx={{ width: 140 }}
          >
            {['A4', 'Letter'].map((p) => (
              <MenuItem key={p} value={p}>
                {p}
              </MenuItem>
            ))}
          </TextField>
          <span className="small quiet">{labels.length} labels</span>
        </div>
      </div>
      <div className="scroll-x">
        <div
          className={`label-sheet ${paper.toLowerCase()}`}
          style={{ gridTemplateColumns: `repeat(${columns}, 1fr)` }}
        >
          {labels.map(({ unit, qr }) => {
            const i = indexOf(unit.treatmentId);
            return (
              <div className="label" key={unit.id}>
                <Tessera index={i} size={46} />
                <div className="label-text">
                  <div className="label-code">
                    {unit.code} <span className="label-letter">{tesseraLetter(i)}</span>
                  </div>
                  <div>{plan.treatments[i]?.name}</div>
                  <div className="label-small">
                    {unit.block !== null && `block ${unit.block} · `}
                    {shortDate(plan.startDate)}
                  </div>
                </div>
                <img src={qr} alt={`QR code of ${unit.code}`} />
              </div>
            );
          })}
        </div>
      </div>
    </main>
  );
}
