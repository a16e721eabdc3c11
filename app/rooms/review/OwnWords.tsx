import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Block } from '~core/report/block';
import { ALWAYS, type Edit, sectionsOf, sentencesOf } from '~core/report/edits';
import { usePost } from '../../form/usePost';

interface Props {
  /** the document as it is generated */
  generated: readonly Block[];
  edits: readonly Edit[];
  hidden: readonly string[];
  /** edits whose sentence isn't generated any more */
  outOfDate: readonly Edit[];
}

const short = (text: string) => (text.length > 90 ? `${text.slice(0, 88)} …` : text);

/** Sections left out, and sentences in the reviewer's own words; a change of the data marks them as out of date. */
export function OwnWords({ generated, edits, hidden, outOfDate }: Props) {
  const post = usePost();
  const [chosen, setChosen] = useState('');
  const [text, setText] = useState('');
  const keep = (own: { edits?: Edit[]; hidden?: string[] }) =>
    post({ own: { edits: own.edits ?? [...edits], hidden: own.hidden ?? [...hidden] } });
  const open = sentencesOf(generated).filter((s) => !edits.some((e) => e.was === s));
  const add = () => {
    keep({ edits: [...edits.filter((e) => e.was !== chosen), { was: chosen, text: text.trim() }] });
    setChosen('');
    setText('');
  };
  return (
    <>
      <details>
        <summary>Sections</summary>
        {sectionsOf(generated).map((s) => (
          <div key={s}>
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked={!hidden.includes(s) || ALWAYS.includes(s)}
                  disabled={ALWAYS.includes(s)}
                  onChange={(e) =>
                    keep({ hidden: e.target.checked ? hidden.filter((h) => h !== s) : [...hidden, s] })
                  }
                />
              }
              label={s}
            />
          </div>
        ))}
      </details>
      <details open={outOfDate.length > 0 || edits.length > 0}>
        <summary>Sentences in your own words</summary>
        <div className="stack" style={{ paddingTop: '0.6rem' }}>
          {edits.map((e) => (
            <div key={e.was} className={outOfDate.some((o) => o.was === e.was) ? 'note bad' : 'note plain'}>
              {outOfDate.some((o) => o.was === e.was) && (
                <p className="small">
                  <strong>Out of date:</strong> the data changed, and this sentence isn’t generated any more.
                  Yours is left out.
                </p>
              )}
              <p className="small quiet">{e.was}</p>
              <p>{e.text}</p>
              <Button
                color="inherit"
                size="small"
                aria-label={`Drop mine: ${short(e.text)}`}
                onClick={() => keep({ edits: edits.filter((x) => x.was !== e.was) })}
              >
                Drop mine
              </Button>
            </div>
          ))}
          <TextField
            select
            size="small"
            label="Rewrite a sentence"
            value={chosen}
            onChange={(e) => {
              setChosen(e.target.value);
              setText(e.target.value);
            }}
          >
            {open.map((s) => (
              <MenuItem key={s} value={s} sx={{ whiteSpace: 'normal', maxWidth: 560 }}>
                {short(s)}
              </MenuItem>
            ))}
          </TextField>
          {chosen !== '' && (
            <>
              <TextField
                label="In your own words"
                multiline
                minRows={2}
                value={text}
                onChange={(e) => setText(e.target.value)}
              />
              <div>
                <Button
                  variant="outlined"
                  color="secondary"
                  disabled={text.trim() === '' || text.trim() === chosen}
                  onClick={add}
                >
                  Keep mine
                </Button>
              </div>
            </>
          )}
        </div>
      </details>
    </>
  );
}
