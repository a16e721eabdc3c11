import { temperatureUnit } from '~core/quantity/region';
import { temperatureShown } from '~core/quantity/temperature';
import type { Instrument } from './instrument';

type Channel = Pick<Instrument['channels'][number], 'unit'>;

/** What a channel reads, in the unit it is written in here. */
export const channelShown = ({ unit }: Channel, value: number): number =>
  unit === '°C' ? temperatureShown(value) : value;

/** The unit a channel is written in here. */
export const channelUnit = ({ unit }: Channel): string => (unit === '°C' ? temperatureUnit() : unit);
