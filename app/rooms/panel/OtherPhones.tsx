import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import QRCode from 'qrcode';
import { useEffect, useState } from 'react';
import type { PanelSession } from '~core/model/panel';
import type { Plan } from '~core/model/plan';
import { usePost } from '../../form/usePost';
import { PickOne } from '../../ui/PickOne';
import { announce } from '../../ui/announce';
import { TasterReply, packed, sheetOf, unpacked } from './tasterSheet';

/** A taster's page by its own link, and the answers that come back as a text. */
export function OtherPhones({ plan, session }: { plan: Plan; session: PanelSession }) {
  const post = usePost();
  const [taster, setTaster] = useState('0');
  const [qr, setQr] = useState<{ link: string; url: string | null } | null>(null);
  const [text, setText] = useState('');
  const [fault, setFault] = useState('');
  const contenders = plan.treatments.map(({ id, name }) => ({ id, name }));
  const link = `${window.location.origin}/taste#${packed(sheetOf(session, Number(taster), contenders))}`;
  useEffect(() => {
    let gone = false;
    // A long link makes a dense code; beyond what a code holds, the link alone is given.
    QRCode.toDataURL(link, { errorCorrectionLevel: 'L', margin: 2, width: 320 }).then(
      (url) => !gone && setQr({ link, url }),
      () => !gone && setQr({ link, url: null }),
    );
    return () => {
      gone = true;
    };
  }, [link]);
  const takeIn = () => {
    const reply = unpacked(text, TasterReply);
    if (!reply) return setFault('That isn’t a taster’s text, or a part of it is missing.');
    if (reply.sessionId !== session.id) return setFault('These answers are of another session.');
    post({ intent: 'reply', reply });
    setText('');
    setFault('');
  };
  const copy = () =>
    navigator.clipboard.writeText(link).then(
      () => announce('The link is copied.'),
      () => announce('This browser doesn’t copy: mark the link and copy it.'),
    );
  return (
    <div className="fields" style={{ marginTop: '1rem' }}>
      <div className="w6 stack tight">
        <PickOne
          label="Link for"
          value={taster}
          options={session.tasters.map((t, i) => [String(i), t.name] as const)}
          onPick={setTaster}
        />
        <p className="small quiet">
          The phone opens it from where this Palazzo is served; the link holds codes and scales, not what is
          in the cups.
        </p>
        {qr?.link === link && qr.url && (
          <img
            src={qr.url}
            width={240}
            height={240}
            alt={`Code of the link for ${session.tasters[Number(taster)]!.name}`}
          />
        )}
        <TextField
          size="small"
          label="The link"
          value={link}
          slotProps={{ htmlInput: { readOnly: true } }}
          fullWidth
        />
        <div>
          <Button size="small" color="secondary" onClick={() => void copy()}>
            Copy the link
          </Button>
        </div>
      </div>
      <div className="w6 stack tight">
        <TextField
          label="Answers that came back"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setFault('');
          }}
          multiline
          minRows={3}
          maxRows={8}
          fullWidth
          error={fault !== ''}
          helperText={fault || 'the text a taster’s phone gives at the end'}
        />
        <div>
          <Button variant="outlined" color="secondary" onClick={takeIn} disabled={text.trim() === ''}>
            Take them in
          </Button>
        </div>
      </div>
    </div>
  );
}
