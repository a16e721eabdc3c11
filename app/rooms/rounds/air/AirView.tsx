import { formatCount, formatFigure } from '~core/quantity/format';
import { temperatureUnit } from '~core/quantity/region';
import { temperatureShown, warmthShown } from '~core/quantity/temperature';
import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';
import type { z } from 'zod';
import { useRevalidator, useSearchParams } from 'react-router';
import type { Plan } from '~core/model/plan';
import { numberIn } from '~core/quantity/number';
import { fieldText, optionalNumber, optionalTemperature } from '../../../form/schemaFields';
import { TypedField } from '../../../form/TypedField';
import { shortTime } from '../../../ui/clock';
import { AirChart } from './AirChart';
import { HandReading } from './HandReading';
import { LoggerImport } from './LoggerImport';
import { type AirData, type AirLine, type Bands, differenceWords, sayGaps } from './airData';

/** An end of a band as it is typed; temperatures are kept in °C whatever the device writes. */
const [temperatureEnd, figureEnd] = [optionalTemperature(), optionalNumber()];

/** Bands in the address, as the screen has them: `band=temperature:18:26`. */
export function bandsOf(search: URLSearchParams): Bands {
  const limit = (quantity: string, text: string | undefined) => {
    const value = text ? numberIn(text) : null;
    return value === null || quantity !== 'temperature' ? value : Number(temperatureShown(value).toFixed(1));
  };
  return new Map(
    search.getAll('band').map((b) => {
      const [quantity, low, high] = b.split(':');
      return [quantity!, [limit(quantity!, low), limit(quantity!, high)]] as const;
    }),
  );
}

/** How long a place lay outside the band that was asked for. */
const sayOutside = (hours: number) =>
  hours === 0 ? 'never outside the band' : `${formatFigure(hours, 1)} h outside the band`;

const figure = (x: number) => formatFigure(x, Math.abs(x) < 10 ? 2 : 1);

/** Air and light: what loggers wrote, place against place, and what lay outside the wanted band. */
export function AirView({
  plan,
  air,
  head,
}: {
  plan: Plan;
  air: AirData;
  head: (title: string | null) => ReactNode;
}) {
  const revalidator = useRevalidator();
  const [search, setSearch] = useSearchParams();
  const bands = bandsOf(search);
  const setBand = (quantity: string, side: 0 | 1, end: number | null) => {
    const next = new URLSearchParams(search);
    const others = search.getAll('band').filter((b) => !b.startsWith(`${quantity}:`));
    const now = search
      .getAll('band')
      .find((b) => b.startsWith(`${quantity}:`))
      ?.split(':')
      .slice(1) ?? ['', ''];
    now[side] = fieldText(end);
    next.delete('band');
    for (const b of others) next.append('band', b);
    if (now.some(Boolean)) next.append('band', `${quantity}:${now[0]}:${now[1]}`);
    setSearch(next, { replace: true, preventScrollReset: true });
  };
  const differences = air.differences.flatMap((d) => differenceWords(d) ?? []);
  const quantities = new Map<string, AirLine[]>();
  for (const l of air.lines) quantities.set(l.quantity, [...(quantities.get(l.quantity) ?? []), l]);
  return (
    <>
      {head(differences[0] ?? null)}
      {air.files.length === 0 && air.lines.length === 0 && (
        <p className="quiet" style={{ maxWidth: '44rem' }}>
          Two levels of one shelf are seldom alike. A logger in each shows by how much: “the upper shelf was
          {formatFigure(warmthShown(1.8), 1)} {temperatureUnit()} warmer at night”. The audit takes it from
          there.
        </p>
      )}
      {differences.slice(1).map((text) => (
        <p key={text} className="note open" style={{ maxWidth: '52rem' }}>
          {text}
        </p>
      ))}
      {[...quantities].map(([quantity, lines]) => (
        <section key={quantity} className="section" aria-label={lines[0]!.name}>
          <h2>{lines[0]!.name}</h2>
          <AirChart lines={lines} band={bands.get(quantity)} />
          <div className="inline-row" style={{ alignItems: 'center' }}>
            {(['wanted from', 'to'] as const).map((label, side) => (
              <BandEnd
                key={label}
                label={label}
                of={quantity === 'temperature' ? temperatureEnd : figureEnd}
                shown={bands.get(quantity)?.[side] ?? null}
                called={`${lines[0]!.name} ${label}`}
                onKeep={(end) => setBand(quantity, side as 0 | 1, end)}
              />
            ))}
            <ul className="small" style={{ margin: 0 }}>
              {lines.map((l) => (
                <li key={l.key}>
                  {l.place}
                  {l.byHand && ' by hand'}: {figure(l.extent.min)} to {figure(l.extent.max)}, mean{' '}
                  {figure(l.extent.mean)} <span className="unit">{l.unit}</span>
                  {l.gaps.length > 0 && <> · {sayGaps(l.gaps)}</>}
                  {l.outside !== null && <strong> · {sayOutside(l.outside)}</strong>}
                </li>
              ))}
            </ul>
          </div>
          {lines.some((l) => l.light.length > 0) && (
            <p className="small">
              Daily light:{' '}
              {lines
                .filter((l) => l.light.length > 0)
                .map((l) => {
                  const whole = l.light.slice(1, -1);
                  const days = whole.length > 0 ? whole : l.light;
                  return `${l.place} ${(days.reduce((s, d) => s + d.mol, 0) / days.length).toFixed(1)} mol/m² a day`;
                })
                .join(' · ')}
            </p>
          )}
        </section>
      ))}
      {air.files.length > 0 && (
        <details>
          <summary>{air.files.length === 1 ? 'The file' : `${air.files.length} files`} read in</summary>
          <ul className="small">
            {air.files.map((f) => (
              <li key={f.entryId}>
                {f.name}, {f.place}: {formatCount(f.rows)} rows, {shortTime(f.from)} to {shortTime(f.to)}
                {f.missing && ' · its readings aren’t on this device'}
              </li>
            ))}
          </ul>
        </details>
      )}
      <HandReading plan={plan} onKept={() => void revalidator.revalidate()} />
      <LoggerImport plan={plan} onKept={() => void revalidator.revalidate()} />
      {bands.size > 0 && (
        <Button
          size="small"
          color="secondary"
          onClick={() => {
            const next = new URLSearchParams(search);
            next.delete('band');
            setSearch(next, { replace: true });
          }}
        >
          No bands
        </Button>
      )}
    </>
  );
}

/** One end of a wanted band; it holds when the field is left. */
function BandEnd({
  label,
  of,
  shown,
  called,
  onKeep,
}: {
  label: string;
  of: z.ZodType<number | null, string>;
  shown: number | null;
  called: string;
  onKeep: (end: number | null) => void;
}) {
  const [typed, setTyped] = useState(fieldText(shown));
  const keep = (text: string) => {
    setTyped(text);
    const read = of.safeParse(text);
    if (read.success) onKeep(read.data);
  };
  return (
    <TypedField
      label={label}
      of={of}
      value={typed}
      onType={setTyped}
      onPick={keep}
      onBlur={() => keep(typed)}
      slotProps={{ htmlInput: { inputMode: 'decimal', 'aria-label': called } }}
      sx={{ width: 130 }}
    />
  );
}
