import { titled } from '../../ui/title';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import type { Sent } from '../../lan/guest';
import { saySent } from '../../lan/saySent';
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

export const meta = () => titled('Tasting');

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
  const [text = '', place = ''] = useLocation().hash.slice(1).split('~');
  const sheet = unpacked(text, TasterSheet);
  if (!sheet) {
    return (
      <main className="page-message">
        <h1>Nothing to taste here</h1>
        <p>The link isn’t whole. Ask the host for it again, or scan its code once more.</p>
      </main>
    );
  }
  return <Pages key={`${sheet.session.id}/${sheet.taster}`} sheet={sheet} place={place} />;
}

function Pages({ sheet, place }: { sheet: TasterSheet; place: string }) {
  const [reply, setReply] = useState(() => kept(sheet));
  // The place in the letter-box is taken while the link is fresh: a tasting outlasts it.
  useEffect(() => {
    if (place === '') return;
    // What can't be reached now is said when the answers are sent.
    void import('../../lan/guest').then(({ guestBy }) => guestBy(place, sheet.name)).catch(() => null);
  }, [place, sheet.name]);
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
      end={<HandBack reply={reply} place={place} name={sheet.name} />}
    />
  );
}

/** How often the letter-box is looked at for the host's answer, ms. */
const EVERY_MS = 3000;

/** @param place in the host's letter-box; empty where the link holds none */
function HandBack({ reply, place, name }: { reply: TasterReply; place: string; name: string }) {
  const text = packed(reply);
  const [fault, setFault] = useState('');
  const [sent, setSent] = useState<Sent | null>(null);
  // Answers that were sent are followed until the host has said what became of them, over a reload too.
  useEffect(() => {
    if (place === '') return;
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = async () => {
      try {
        const { fromHost, guestBy, sentBy } = await import('../../lan/guest');
        const guest = await guestBy(place, name);
        if (guest && !gone) {
          if (sentBy(guest).some((s) => s.state === 'sent')) await fromHost(guest);
          if (!gone) setSent(sentBy(guest).find((s) => s.what === text) ?? null);
        }
      } catch {
        // not reached now: what was sent stays said as it was
      }
      if (!gone) timer = setTimeout(() => void look(), EVERY_MS);
    };
    void look();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [place, name, text]);
  const post = async () => {
    try {
      const { guestBy, sentBy, tellHost } = await import('../../lan/guest');
      const guest = await guestBy(place, name);
      if (!guest) throw new Error('The link isn’t whole.');
      await tellHost(guest, text, { kind: 'answers', text });
      setSent(sentBy(guest).find((s) => s.what === text) ?? null);
      setFault('');
    } catch (e) {
      setFault(`${(e as Error).message} Hand them over as a text instead.`);
    }
  };
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
      {place !== '' && (
        <>
          <p role="status">
            {sent
              ? saySent(sent, 'The host keeps them. Thank you.')
              : 'Your answers are on this phone. Send them when you are done.'}
          </p>
          <Button
            variant="contained"
            disabled={sent !== null && sent.state !== 'arrived'}
            onClick={() => void post()}
            sx={{ minHeight: 56 }}
          >
            Send them to the host
          </Button>
          {fault !== '' && (
            <p role="alert" className="warning">
              {fault}
            </p>
          )}
        </>
      )}
      <p>
        {place === ''
          ? 'Your answers are on this phone. Hand them to the host: copy the text and send it.'
          : 'Or as a text:'}
      </p>
      <Button
        variant={place === '' ? 'contained' : 'outlined'}
        onClick={() => void send()}
        sx={{ minHeight: 56 }}
      >
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
