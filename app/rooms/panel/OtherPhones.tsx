import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import type { PanelSession } from '~core/model/panel';
import type { Plan } from '~core/model/plan';
import { useSend } from '../../form/usePost';
import { isThisMachineAlone, reachableAt } from '../../lan/reachable';
import { QrCode } from '../../ui/QrCode';
import { PickOne } from '../../ui/PickOne';
import { announce } from '../../ui/announce';
import { TasterReply, packed, sheetOf, unpacked } from './tasterSheet';

/** A taster's page by its own link, and the answers that come back as a text. */
export function OtherPhones({ plan, session }: { plan: Plan; session: PanelSession }) {
  const send = useSend();
  const [taster, setTaster] = useState('0');
  const [invited, setInvited] = useState<{ taster: string; place: string } | null>(null);
  const [reachable, setReachable] = useState([window.location.origin]);
  const [at, setAt] = useState(window.location.origin);
  const [text, setText] = useState('');
  const [fault, setFault] = useState('');
  const contenders = plan.treatments.map(({ id, name }) => ({ id, name }));
  // A desk opened as localhost is reached by the network's address, where there is one.
  useEffect(() => {
    if (!isThisMachineAlone(window.location.hostname)) return;
    let gone = false;
    void import('../../lan/box').then(async ({ lanHere }) => {
      const addresses = reachableAt(window.location, await lanHere());
      if (gone) return;
      setReachable(addresses);
      setAt(addresses[0]!);
    });
    return () => {
      gone = true;
    };
  }, []);
  // Where devices are paired, the link holds a place in the letter-box: answers come back by themselves.
  useEffect(() => {
    if (window.location.protocol !== 'https:') return;
    let gone = false;
    void import('../../lan/pairing').then(async ({ pairing, pairingLink }) => {
      if (!(await pairing())) return;
      const place = (await pairingLink('taste', window.location.origin)).split('#')[1]!;
      if (!gone) setInvited({ taster, place });
    });
    return () => {
      gone = true;
    };
  }, [taster]);
  const place = invited?.taster === taster ? `~${invited.place}` : '';
  const link = `${at}/taste#${packed(sheetOf(session, Number(taster), contenders))}${place}`;
  const takeIn = async () => {
    const reply = unpacked(text, TasterReply);
    if (!reply) return setFault('That isn’t a taster’s text, or a part of it is missing.');
    if (reply.sessionId !== session.id) return setFault('These answers are of another session.');
    setFault('');
    if (await send({ intent: 'reply', reply })) setText('');
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
        {reachable.length > 1 && (
          <PickOne
            label="Reached at"
            value={at}
            options={reachable.map((a) => [a, a] as const)}
            onPick={setAt}
          />
        )}
        {isThisMachineAlone(new URL(at).hostname) && (
          <p className="note open">
            No other phone can open this link: Palazzo serves this machine alone. Start it with{' '}
            <code>npm start -- --lan</code>, or taste on this device.
          </p>
        )}
        <p className="small quiet">
          The phone opens it from where this Palazzo is served; the link holds codes and scales, not what is
          in the cups.{place !== '' && ' Answers come back by themselves; it shows the tasting alone.'}
        </p>
        <QrCode text={link} label={`Code of the link for ${session.tasters[Number(taster)]!.name}`} />
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
          <Button
            variant="outlined"
            color="secondary"
            onClick={() => void takeIn()}
            disabled={text.trim() === ''}
          >
            Take them in
          </Button>
        </div>
      </div>
    </div>
  );
}
