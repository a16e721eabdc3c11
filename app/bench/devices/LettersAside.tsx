import { useState } from 'react';
import { useRevalidator } from 'react-router';
import { tryAgain } from '../../lan/incoming';
import { throwAway } from '../../lan/setAside';
import { TwoAnswers } from '../../ui/TwoAnswers';
import { announce } from '../../ui/announce';
import { shortTime } from '../../ui/clock';

/** A letter that was set aside, as it is listed. */
export interface AsideLetter {
  seq: number;
  from: string;
  at: string;
  why: string;
  /** it can be tried again */
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
              <TwoAnswers
                yes="Try again"
                no="Throw away"
                onYes={l.opens ? () => void again(l.seq) : undefined}
                onNo={() => void throwAway(l.seq).then(() => revalidator.revalidate())}
              />
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
