import Button from '@mui/material/Button';
import { type ComponentProps, useState } from 'react';
import { InstrumentPart } from './InstrumentPart';
import { OtherInstruments } from './OtherInstruments';
import type { Instrument, Measures } from './instrument';
import { useInstrument } from './useInstrument';

type Panel = ComponentProps<typeof InstrumentPart>;

interface Props extends Pick<Panel, 'meets' | 'takeLabel'> {
  measures: Measures;
  /** what its button calls it */
  called: string;
  onTake: (reading: Parameters<Panel['onTake']>[0], instrument: Instrument) => void;
}

/** An instrument beside a form that is typed as well: taken out when asked for; nothing where there is none. */
export function InstrumentDrawer({ measures, called, onTake, ...panel }: Props) {
  const [out, setOut] = useState(false);
  const { instrument, others, open, fault } = useInstrument(measures);
  if (!instrument && others.length === 0) return null;
  return (
    <>
      <Button size="small" color="secondary" onClick={() => setOut(!out)} aria-expanded={out}>
        {out ? `${called[0]!.toUpperCase()}${called.slice(1)} away` : `Use the ${called}`}
      </Button>
      {out && (
        <div style={{ flexBasis: '100%' }}>
          <OtherInstruments others={others} fault={fault} onOpen={open} />
          {instrument && (
            <InstrumentPart {...panel} instrument={instrument} onTake={(r) => onTake(r, instrument)} />
          )}
        </div>
      )}
    </>
  );
}
