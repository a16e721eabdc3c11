import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { pairByCode } from '../../lan/pairing';

/** A name it is likely to be called by. */
const likelyName = () =>
  /Mobi|Android|iPhone/.test(navigator.userAgent)
    ? 'Phone'
    : /iPad|Tablet/.test(navigator.userAgent)
      ? 'Tablet'
      : 'Desk';

/** Pairs this device by a code it was given. */
export function PairHere({ code: given, keyText }: { code: string; keyText: string | null }) {
  const navigate = useNavigate();
  const [code, setCode] = useState(given);
  const [name, setName] = useState(likelyName);
  const [fault, setFault] = useState('');
  const [busy, setBusy] = useState(false);
  const pair = async () => {
    if (code.trim() === '') return setFault('Type the code that the terminal shows.');
    setBusy(true);
    try {
      await pairByCode(code.trim(), keyText, name.trim() || likelyName());
      await navigate('/devices');
    } catch (e) {
      setFault((e as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      className="stack"
      style={{ maxWidth: 340, margin: '1rem 0' }}
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void pair();
      }}
    >
      <TextField
        label="Code"
        value={code}
        error={fault !== ''}
        helperText={fault || (given ? '' : 'as the terminal shows it where Palazzo was started')}
        slotProps={{ htmlInput: { autoCapitalize: 'characters', style: { fontFamily: 'var(--mono)' } } }}
        onChange={(e) => {
          setCode(e.target.value);
          setFault('');
        }}
      />
      <TextField
        label="What this device is called"
        value={name}
        slotProps={{ htmlInput: { maxLength: 60 } }}
        onChange={(e) => setName(e.target.value)}
      />
      <Button type="submit" variant="contained" disabled={busy} sx={{ minHeight: 48 }}>
        Pair this device
      </Button>
    </form>
  );
}
