import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { callCase, letters, tellCall, testCalls } from '~core/eye/callIt';
import { callPicture } from '~core/picture/callPicture';
import { countWord, sentenceCase } from '~core/quantity/format';
import { Picture } from '../../ui/pictures/Picture';
import { usePictureRoom } from '../../ui/pictures/usePictureRoom';
import { isTyping } from '../../ui/keys';
import { useTileInk } from '../../ui/UnitTile';
import { Told } from './Told';
import { TrayPicture } from './TrayPicture';
import type { GameProps } from './game';

/** Whether somebody was named, and whether it was whoever is best. */
const named = (who: number | null, best: number | null) =>
  who === null ? ('none' as const) : who === best ? ('best' as const) : ('other' as const);

/** Dots of a trial: who won, or is it too close? */
export function CallGame({ seed, level, onAnswered, onNext }: GameProps) {
  const one = useMemo(() => callCase(seed, level), [seed, level]);
  const test = useMemo(() => testCalls(one), [one]);
  const [called, setCalled] = useState<number | null | undefined>(undefined);
  const room = usePictureRoom();
  const done = called !== undefined;
  const told = useMemo(
    () => (called === undefined ? null : tellCall(one, called, test)),
    [one, called, test],
  );
  const call = (who: number | null) => {
    if (done) return;
    setCalled(who);
    onAnswered({
      right: who === one.best,
      call: { differs: one.best !== null, eye: named(who, one.best), test: named(test, one.best) },
    });
  };
  const names = letters.slice(0, one.values.length);
  useHotkeys(
    'a,b,c,d',
    (e) => {
      const who = names.indexOf(e.key.toUpperCase() as (typeof letters)[number]);
      if (who >= 0) call(who);
    },
    { useKey: true, ignoreEventWhen: isTyping },
  );
  useHotkeys('t', () => call(null), { useKey: true, ignoreEventWhen: isTyping });
  const drawing = callPicture(one.values, names, `${one.what}, ${one.unit}`, room);
  return (
    <>
      <p className="quiet">
        {sentenceCase(one.plural)}, {countWord(one.made.units[0]!)} of each. Which one truly gives more, or is
        it too close?
      </p>
      {one.pictured ? (
        <Trays values={one.values} names={names} seed={seed} told={done} />
      ) : (
        <Picture
          drawing={drawing}
          label={names
            .map((n, i) => `${n}: ${[...one.values[i]!].sort((a, b) => a - b).join(', ')}`)
            .join('; ')}
          file="case"
          passing
        />
      )}
      <div className="eye-answers" role="group" aria-label="Your call">
        {names.map((n, i) => (
          <Button
            key={n}
            variant={called === i ? 'contained' : 'outlined'}
            color="secondary"
            disabled={done && called !== i}
            aria-pressed={called === i}
            onClick={() => call(i)}
          >
            {n}
          </Button>
        ))}
        <Button
          variant={called === null ? 'contained' : 'outlined'}
          color="secondary"
          disabled={done && called !== null}
          aria-pressed={called === null}
          onClick={() => call(null)}
        >
          too close to call
        </Button>
      </div>
      {told && (
        <Told title={told.title} onNext={onNext}>
          <p>{told.text}</p>
        </Told>
      )}
    </>
  );
}

/** Trays from above, a row a contender; once it is called their covers are written under them. */
function Trays({
  values,
  names,
  seed,
  told,
}: {
  values: number[][];
  names: readonly string[];
  seed: number;
  told: boolean;
}) {
  const tileInk = useTileInk();
  return (
    <div className="figure-box eye-trays">
      {values.map((own, i) => (
        <div className="eye-row" key={names[i]}>
          <span className="tile-letter" style={tileInk(i)}>
            {names[i]}
          </span>
          {own.map((cover, u) => (
            <figure key={u}>
              <TrayPicture
                cover={cover / 100}
                seed={seed + 97 * i + u}
                width={150}
                label={`Tray ${u + 1} of ${names[i]}`}
              />
              {told && <figcaption className="small num">{cover} %</figcaption>}
            </figure>
          ))}
        </div>
      ))}
    </div>
  );
}
