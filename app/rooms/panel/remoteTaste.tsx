import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useLocation } from 'react-router';
import { announce } from '../../ui/announce';
import { TasterPages } from './TasterPages';
import {
  type TasterAnswer,
  type TasterGuess,
  TasterReply,
  TasterSheet,
  packed,
  unpacked,
} from './tasterSheet';

export const meta = () => [{ title: 'Tasting — Palazzo' }];

const keyOf = (sheet: TasterSheet) => `palazzo/tasted/${sheet.session.id}/${sheet.taster}`;

function kept(sheet: TasterSheet): TasterReply {
  const none: TasterReply = {
    ...{ format: 'palazzo-taster-1', sessionId: sheet.session.id, taster: sheet.taster },
    ...{ answers: [], guess: null },
  };
  try {
    const read = TasterReply.safeParse(JSON.parse(localStorage.getItem(keyOf(sheet)) ?? 'null'));
    return read.success ? read.data : none;
  } catch {
    return none;
  }
}

/** A taster's page on another phone: all it needs is in its link, and the answers go back as a text. */
export default function RemoteTaste() {
  const sheet = unpacked(useLocation().hash.slice(1), TasterSheet);
  if (!sheet) {
    return (
      <main className="page-message">
        <h1>Nothing to taste here</h1>
        <p>The link isn’t whole. Ask the host for it again, or scan its code once more.</p>
      </main>
    );
  }
  return <Pages key={`${sheet.session.id}/${sheet.taster}`} sheet={sheet} />;
}

function Pages({ sheet }: { sheet: TasterSheet }) {
  const [reply, setReply] = useState(() => kept(sheet));
  const put = (next: TasterReply) => {
    localStorage.setItem(keyOf(sheet), JSON.stringify(next));
    setReply(next);
  };
  const answer = (a: TasterAnswer) =>
    put({ ...reply, answers: [...reply.answers.filter((b) => b.set !== a.set || b.code !== a.code), a] });
  return (
    <TasterPages
      sheet={sheet}
      answers={reply.answers}
      guess={reply.guess}
      onAnswer={answer}
      onGuess={(guess: TasterGuess) => put({ ...reply, guess })}
      end={<HandBack reply={reply} />}
    />
  );
}

function HandBack({ reply }: { reply: TasterReply }) {
  const text = packed(reply);
  const send = async () => {
    try {
      await navigator.clipboard.writeText(text);
      announce('Copied. Send it to the host as a message.');
    } catch {
      announce('This browser doesn’t copy: press long on the text and copy it.');
    }
  };
  return (
    <>
      <p>Your answers are on this phone. Hand them to the host: copy the text and send it.</p>
      <Button variant="contained" onClick={() => void send()} sx={{ minHeight: 56 }}>
        Copy the answers
      </Button>
      <TextField
        label="The answers as a text"
        value={text}
        multiline
        maxRows={6}
        fullWidth
        slotProps={{ htmlInput: { readOnly: true } }}
      />
    </>
  );
}
