import Button from '@mui/material/Button';
import { useState } from 'react';
import { useRevalidator } from 'react-router';
import { tryAgain } from '../../lan/incoming';
import { throwAway } from '../../lan/setAside';
import { announce } from '../../ui/announce';
import { shortTime } from '../clock';

/** A letter that was set aside, as it is listed. */
export interface AsideLetter {
  seq: number;
  from: string;
  at: string;
  why: string;
  /** it came out of its seal, and can be tried again */
  opens: boolean;
}

/** Letters that weren't taken in, each with its reason: nothing of them is lost until it is thrown away. */
export function LettersAside({ letters }: { letters: readonly AsideLetter[] }) {
  const revalidator = useRevalidator();
  const [why, setWhy] = useState<{ seq: number; text: string } | null>(null);
  if (letters.length === 0) return null;
  const again = async (seq: number) => {
    const fault = await tryAgain(seq);
    setWhy(fault === null ? null : { seq, text: fault });
    if (fault === null) announce('It is kept now.');
    await revalidator.revalidate();
  };
  return (
    <section className="note open" aria-labelledby="aside">
      <h2 id="aside">
        {letters.length === 1 ? 'A letter was set aside' : `${letters.length} letters were set aside`}
      </h2>
      <p className="small">What couldn’t be taken in stands here with its reason; the others went on.</p>
      <table className="ledger as-rows">
        <tbody>
          {letters.map((l) => (
            <tr key={l.seq}>
              <td>{l.from || 'an unknown device'}</td>
              <td className="num small">{shortTime(l.at)}</td>
              <td>{why !== null && why.seq === l.seq ? why.text : l.why}</td>
              <td className="n">
                {l.opens && (
                  <Button size="small" color="secondary" onClick={() => void again(l.seq)}>
                    Try again
                  </Button>
                )}
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => void throwAway(l.seq).then(() => revalidator.revalidate())}
                >
                  Throw away
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
