import TextField from '@mui/material/TextField';
import { useState } from 'react';

/** Words to tick, the session's and one's own. */
export function TasterWords({
  words,
  ticked,
  onTick,
}: {
  words: readonly string[];
  ticked: readonly string[];
  onTick: (words: string[]) => void;
}) {
  const [own, setOwn] = useState('');
  const all = [...words, ...ticked.filter((w) => !words.includes(w))];
  const add = () => {
    const word = own.trim().toLowerCase().slice(0, 30);
    setOwn('');
    if (word !== '' && !ticked.includes(word)) onTick([...ticked, word]);
  };
  return (
    <fieldset className="taster-words">
      <legend className="small quiet">Words that fit</legend>
      {all.map((w) => (
        <button
          type="button"
          key={w}
          aria-pressed={ticked.includes(w)}
          onClick={() => onTick(ticked.includes(w) ? ticked.filter((x) => x !== w) : [...ticked, w])}
        >
          {w}
        </button>
      ))}
      <span className="inline-row">
        <TextField
          size="small"
          label="Another word"
          value={own}
          onChange={(e) => setOwn(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && add()}
          onBlur={add}
        />
      </span>
    </fieldset>
  );
}
