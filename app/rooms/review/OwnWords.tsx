import { ArrowDownwardIcon, ArrowUpwardIcon } from '../../ui/icons';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import type { Block } from '~core/report/block';
import { type FigureRegion, figureRegionIds, figureRegions } from '~core/quantity/region';
import { ALWAYS, type Edit, inOrder, sectionsOf, sentencesOf } from '~core/report/edits';
import type { Own } from './reviewRecords';

interface Props {
  /** the document as it is generated */
  generated: readonly Block[];
  own: Own;
  keep: (over: Partial<Own>) => void;
  /** a sentence is being rewritten, and isn't kept yet */
  onRewriting: (rewriting: boolean) => void;
  /** edits whose sentence isn't generated any more */
  outOfDate: readonly Edit[];
}

const short = (text: string) => (text.length > 90 ? `${text.slice(0, 88)} …` : text);

/** Sections left out, and sentences in the reviewer's own words; a change of the data marks them as out of date. */
export function OwnWords({ generated, own, keep, onRewriting, outOfDate }: Props) {
  const { edits, hidden, order, figures } = own;
  const [chosen, setChosen] = useState('');
  const [text, setText] = useState('');
  const rewriting = chosen !== '' && text !== chosen;
  useEffect(() => onRewriting(rewriting), [onRewriting, rewriting]);
  const sections = sectionsOf(inOrder(generated, order));
  const move = (i: number, by: -1 | 1) => {
    const to = [...sections];
    [to[i], to[i + by]] = [to[i + by]!, to[i]!];
    keep({ order: to });
  };
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
        <p className="small quiet">
          A section without its tick isn’t in the review; what stays open and what is disclosed always is.
        </p>
        {sections.map((s, i) => (
          <div key={s} className="inline-row" style={{ flexWrap: 'nowrap', gap: 0 }}>
            <IconButton size="small" aria-label={`${s} up`} disabled={i === 0} onClick={() => move(i, -1)}>
              <ArrowUpwardIcon fontSize="inherit" />
            </IconButton>
            <IconButton
              size="small"
              aria-label={`${s} down`}
              disabled={i === sections.length - 1}
              onClick={() => move(i, 1)}
            >
              <ArrowDownwardIcon fontSize="inherit" />
            </IconButton>
            <FormControlLabel
              sx={{ ml: 0.5 }}
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
      <TextField
        select
        size="small"
        label="Figures and days are written"
        value={figures}
        onChange={(e) => keep({ figures: e.target.value as FigureRegion })}
      >
        {figureRegionIds.map((id) => (
          <MenuItem key={id} value={id}>
            {figureRegions[id].name}
          </MenuItem>
        ))}
      </TextField>
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
