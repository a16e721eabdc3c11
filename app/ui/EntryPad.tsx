import { faultOrReadings } from './Readings';
import { BackspaceIcon } from './icons';
import Button from '@mui/material/Button';
import { type ReactNode, useEffect, useLayoutEffect, useRef } from 'react';
import { isTyping } from './keys';
import './EntryPad.css';

interface Props {
  /** what has been typed so far */
  text: string;
  /** @param corrected figures were taken off it */
  onText: (text: string, corrected?: boolean) => void;
  unit: string;
  /** small line under the figure */
  left: ReactNode;
  right: ReactNode;
  /** why the value looks wrong; Enter again keeps it */
  warning: string | null;
  error: string | null;
  keepLabel: string;
  onKeep: () => void;
  /** `.` with an empty pad */
  onSomethingOff: () => void;
  disabled?: boolean;
  /** what can be chosen instead of typed: the steps of a scale, yes and no */
  choices?: readonly { value: number; text: string }[];
  onChoice?: (value: number) => void;
  /** as a tape shows them: 14¾, or typed 14 3/4 */
  fractions?: boolean;
}

/** Eighths of an inch. */
const eighths = ['⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'];

/** A figure with a sign behind it; another sign takes the first one's place. @example withSign('14½', '¾') // '14¾' */
const withSign = (text: string, sign: string) => `${text.replace(/[^\d].*$/u, '')}${sign}`;

const keyPad = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫'];

/** Links and buttons other than the plan's tiles and the pad's keys answer Enter themselves. */
const hasOwnEnter = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest('a, button') !== null &&
  !target.closest('.tile, .pad-keys, .pad-choices');

/** The pad for one value: large keys for wet hands, and the keyboard at the desk. */
export function EntryPad(props: Props) {
  const { text, unit, warning, error, keepLabel, onKeep, disabled } = props;
  const current = useRef(props);
  // Before it is seen: a key answers what stands on the screen, never what stood there a moment ago.
  useLayoutEffect(() => {
    current.current = props;
  });

  const press = (key: string) => {
    const p = current.current;
    // A value that is questioned and isn't kept is typed anew.
    if (p.warning !== null && key !== '⌫') p.onText(key === '.' ? '0.' : key);
    else if (key === '⌫') p.onText(p.text.slice(0, -1), true);
    else if (eighths.includes(key)) p.onText(withSign(p.text, key));
    else if (key === ' ' || key === '/') {
      const whole = key === ' ' ? /^\d+$/ : /^(\d+ )?\d+$/;
      if (whole.test(p.text)) p.onText(p.text + key);
    } else if (eighths.some((s) => p.text.endsWith(s))) return;
    else if (key === '.') p.onText(p.text.includes('.') ? p.text : p.text === '' ? '0.' : `${p.text}.`);
    else if (p.text.length < 10) p.onText(p.text === '0' ? key : p.text + key);
  };

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const p = current.current;
      if (isTyping(e) || e.ctrlKey || e.metaKey || e.altKey || p.disabled) return;
      if (/^\d$/.test(e.key)) press(e.key);
      else if (e.key === '.' && p.text === '') p.onSomethingOff();
      else if (e.key === '.' || e.key === ',') press('.');
      else if (p.fractions && (e.key === '/' || (e.key === ' ' && p.text !== ''))) press(e.key);
      else if (e.key === 'Backspace') press('⌫');
      else if (e.key === 'Escape') p.onText('', true);
      // What stands on the pad is kept wherever the focus is; an empty pad leaves Enter to links and buttons.
      else if (e.key === 'Enter' && (p.text !== '' || !hasOwnEnter(e.target))) p.onKeep();
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  return (
    <div>
      <div className="pad-figure">
        <output aria-label="Value typed" aria-live="polite" className={text ? undefined : 'empty-figure'}>
          {text || '–'}
        </output>
        <span className="num quiet">{unit}</span>
      </div>
      <div className="pad-last">
        <span>{props.left}</span>
        <span className="num">{props.right}</span>
      </div>
      {(warning || error) && (
        <p
          role="alert"
          className="small"
          style={{ padding: '0.5rem 0.2rem 0', color: error ? 'var(--porphyry)' : 'var(--ochre-text)' }}
        >
          {error === null
            ? `${warning} Keep it if it is right.`
            : faultOrReadings(error, text, (t) => props.onText(t))}
        </p>
      )}
      {props.choices && props.choices.length > 0 ? (
        <div className={props.choices.length > 6 ? 'pad-choices many' : 'pad-choices'}>
          {props.choices.map((c) => (
            <button
              key={c.value}
              type="button"
              disabled={disabled}
              aria-pressed={text === String(c.value)}
              onClick={() => props.onChoice?.(c.value)}
            >
              <span className="num">{c.value}</span> <span className="step-words">{c.text}</span>
            </button>
          ))}
        </div>
      ) : (
        <div className="pad-keys">
          {keyPad.map((key) => (
            <button
              key={key}
              type="button"
              disabled={disabled}
              onClick={() => press(key)}
              aria-label={key === '⌫' ? 'Delete the last figure' : key === '.' ? 'Decimal point' : key}
            >
              {key === '⌫' ? <BackspaceIcon fontSize="small" /> : key}
            </button>
          ))}
        </div>
      )}
      {props.fractions && (
        <div className="pad-keys eighths">
          {eighths.map((sign) => (
            <button key={sign} type="button" disabled={disabled} onClick={() => press(sign)}>
              {sign}
            </button>
          ))}
        </div>
      )}
      <Button
        fullWidth
        variant={text === '' ? 'outlined' : 'contained'}
        disabled={disabled}
        onClick={onKeep}
        color={warning ? 'warning' : 'primary'}
        sx={{ height: 54, fontSize: '1.05rem' }}
      >
        {warning ? 'Keep it anyway' : keepLabel}&nbsp;<span aria-hidden="true">↵</span>
      </Button>
    </div>
  );
}
