import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { Link, useLoaderData, useRevalidator } from 'react-router';
import { rightWords } from '~core/log/rights';
import { Right } from '~core/model/right';
import { lanHere } from '../../lan/box';
import { exchangeNow, lastExchange, onExchange } from '../../lan/keepExchanging';
import { roleWords, sayExchange } from '../../lan/sayExchange';
import { isThisMachineAlone, reachableAt } from '../../lan/reachable';
import { lettersAside } from '../../lan/setAside';
import { type KnownPeer, pairing, pairingLink, sendAway, setRight, unpair } from '../../lan/pairing';
import { listClashes } from '../../store/clashes';
import { Caution } from '../../ui/Caution';
import { QrCode } from '../../ui/QrCode';
import { RoomHead } from '../../ui/RoomHead';
import { announce } from '../../ui/announce';
import { Clashes } from './Clashes';
import { type AsideLetter, LettersAside } from './LettersAside';
import { PairHere } from './PairHere';

export async function clientLoader() {
  const [here, paired, clashes, aside] = await Promise.all([
    ...([lanHere(), pairing(), listClashes(), lettersAside()] as const),
  ]);
  const letters = aside.map(({ seq, from, at, why, content }): AsideLetter => ({
    seq: seq!,
    from,
    at,
    why,
    opens: content !== null,
  }));
  return { here, paired, clashes, letters };
}

/** Phone and desk, each with its own copy: how they are paired, and what waits for a choice. */
export default function Devices() {
  const { here, paired, clashes, letters } = useLoaderData<typeof clientLoader>();
  return (
    <div style={{ maxWidth: '54rem' }}>
      <RoomHead title="Devices">
        Phone and desk each keep a copy of their own. What is logged on one is handed to the other; nothing
        else in the world hears of it.
      </RoomHead>
      <Clashes clashes={clashes} />
      <LettersAside letters={letters} />
      {here === null && paired === null ? (
        <NotServed />
      ) : paired === null ? (
        <section className="section">
          <h2>Pair this device</h2>
          <PairHere code="" keyText={null} />
        </section>
      ) : (
        <Paired
          peers={paired.peers}
          addresses={here?.addresses ?? []}
          canInvite={here !== null && paired.role === 'log'}
        />
      )}
      {here !== null && <Trust fingerprint={here.fingerprint} />}
    </div>
  );
}

function NotServed() {
  return (
    <section className="section">
      <h2>In this network</h2>
      <p>
        With a phone paired you measure at the shelf while the desk shows the plan; a helper’s phone shows
        coded jars and tasks alone; tasters answer on their own phones. What one writes the others have in
        seconds.
      </p>
      <p>
        So far Palazzo serves this device alone. Start it with <code>npm start -- --lan</code> and it serves
        the network of the house by HTTPS, with a letter-box between paired devices.
      </p>
      <p>
        Without it a file does the same: hand a trial’s zip over from its Review, or the whole bench as a
        backup, and <Link to="/data">take it in under Data</Link> on the other device.
      </p>
    </section>
  );
}

function Paired({
  peers,
  addresses,
  canInvite,
}: {
  peers: readonly KnownPeer[];
  addresses: readonly string[];
  canInvite: boolean;
}) {
  const revalidator = useRevalidator();
  const last = useSyncExternalStore(onExchange, lastExchange, () => null);
  const [adding, setAdding] = useState(false);
  // Who came or went is seen when the letter-box was asked.
  useEffect(() => onExchange(() => void revalidator.revalidate()), [revalidator]);
  const there = peers.filter((p) => p.id !== null);
  return (
    <section className="section">
      <h2>Paired</h2>
      {there.length === 0 ? (
        <p className="quiet">No other device yet.</p>
      ) : (
        <table className="ledger">
          <tbody>
            {there.map((p) => (
              <tr key={p.id}>
                <td>{p.name || 'a device'}</td>
                <td className="quiet">
                  {p.role === 'log' && p.invite !== null ? (
                    <TextField
                      select
                      size="small"
                      value={p.right}
                      slotProps={{
                        htmlInput: { 'aria-label': `What ${p.name || 'the device'} may do unasked` },
                      }}
                      onChange={(e) =>
                        void setRight(p.id!, Right.parse(e.target.value)).then(() => revalidator.revalidate())
                      }
                    >
                      {Right.options.map((r) => (
                        <MenuItem key={r} value={r}>
                          {rightWords[r]}
                        </MenuItem>
                      ))}
                    </TextField>
                  ) : (
                    [roleWords[p.role], p.granted && `this device ${rightWords[p.granted]}`]
                      .filter(Boolean)
                      .join('; ')
                  )}
                </td>
                <td className="n">
                  {p.invite !== null && (
                    <Button
                      size="small"
                      color="inherit"
                      aria-label={`Send away ${p.name || 'the device'}`}
                      onClick={() => void sendAway(p.id!).then(() => revalidator.revalidate())}
                    >
                      Send away
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {last && (
        <p role="status" className={last.fault === null ? 'small quiet' : 'small warning'}>
          {sayExchange(last, there.length)}
        </p>
      )}
      <p className="small quiet">
        Trials go to and fro by themselves while both pages are open; a blind one goes under its codes. Who is
        sent away keeps what it has and gets nothing more.
      </p>
      <div className="inline-row" style={{ marginTop: '0.6rem' }}>
        {canInvite && (
          <Button variant="contained" onClick={() => setAdding(true)}>
            Pair another device
          </Button>
        )}
        <Button variant="outlined" color="secondary" onClick={() => void exchangeNow()}>
          Hand over now
        </Button>
        <Button color="inherit" onClick={() => void unpair().then(() => revalidator.revalidate())}>
          Take this device out
        </Button>
      </div>
      {adding && <AddDevice addresses={addresses} onClose={() => setAdding(false)} />}
    </section>
  );
}

/** The code that pairs one more device, to be scanned. */
function AddDevice({ addresses, onClose }: { addresses: readonly string[]; onClose: () => void }) {
  const reachable = reachableAt(location, { addresses });
  const [at, setAt] = useState(reachable[0]!);
  const [may, setMay] = useState<Right | 'help'>('score');
  const [link, setLink] = useState<string | null>(null);
  const [fault, setFault] = useState('');
  useEffect(() => {
    let gone = false;
    (may === 'help' ? pairingLink('help', at) : pairingLink('log', at, may)).then(
      (made) => !gone && setLink(made),
      (e: Error) => !gone && setFault(e.message),
    );
    return () => {
      gone = true;
    };
  }, [may, at]);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>Pair another device</DialogTitle>
      <DialogContent className="stack">
        <div className="inline-row" style={{ paddingTop: '0.4rem' }}>
          <TextField
            select
            label="The device"
            value={may}
            sx={{ width: 300 }}
            onChange={(e) => {
              setLink(null);
              setMay(e.target.value as Right | 'help');
            }}
          >
            {Right.options.map((r) => (
              <MenuItem key={r} value={r}>
                {rightWords[r]}
              </MenuItem>
            ))}
            <MenuItem value="help">{roleWords.help}</MenuItem>
          </TextField>
          {reachable.length > 1 && (
            <TextField
              select
              label="Reached at"
              value={at}
              sx={{ width: 260 }}
              onChange={(e) => {
                setLink(null);
                setAt(e.target.value);
              }}
            >
              {reachable.map((a) => (
                <MenuItem key={a} value={a}>
                  {a}
                </MenuItem>
              ))}
            </TextField>
          )}
        </div>
        {isThisMachineAlone(new URL(at).hostname) && (
          <p className="note open">
            That address is this machine’s name for itself: no other device can open it.
          </p>
        )}
        {fault !== '' && (
          <p role="alert" className="note bad">
            {fault}
          </p>
        )}
        {link !== null && (
          <>
            <QrCode text={link} label="Code that pairs a device" />
            <TextField
              size="small"
              label="The link"
              value={link}
              slotProps={{ htmlInput: { readOnly: true } }}
              fullWidth
            />
            <p className="small quiet">
              {may !== 'help' &&
                may !== 'all' &&
                'What it brings beyond that waits for your word in the log. '}
              Good once, for a quarter of an hour. The part behind the # is the key: it goes from screen to
              camera, never to the server.
            </p>
          </>
        )}
        <Caution>Whoever scans it gets what it says above. Show it to nobody else.</Caution>
      </DialogContent>
      <DialogActions>
        <Button
          color="secondary"
          disabled={link === null}
          onClick={() =>
            void navigator.clipboard.writeText(link!).then(
              () => announce('The link is copied.'),
              () => announce('This browser doesn’t copy: mark the link and copy it.'),
            )
          }
        >
          Copy the link
        </Button>
        <Button variant="contained" onClick={onClose}>
          Done
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** How a phone comes to trust the bench's own certificate, and what works before and after. */
function Trust({ fingerprint }: { fingerprint: string }) {
  return (
    <section className="section">
      <h2>The certificate</h2>
      <p>
        This bench vouches for itself, so a browser warns once. Logging, camera and storage work at once when
        you go on after the warning. Opening it with the desk switched off works only after the device trusts
        the bench’s authority.
      </p>
      <p className="small" style={{ margin: '0.5rem 0 0.8rem' }}>
        Fingerprint (SHA-256), as the terminal shows it too:{' '}
        <span className="num" style={{ overflowWrap: 'anywhere' }}>
          {fingerprint}
        </span>
      </p>
      <p>
        <Button variant="outlined" color="secondary" href="/lan/authority.crt">
          Get the authority’s certificate
        </Button>
      </p>
      <details>
        <summary>How a device trusts it</summary>
        <ul className="report-list small">
          <li>
            Android: Settings → Security → Encryption and credentials → Install a certificate → CA
            certificate, and choose the file.
          </li>
          <li>
            iPhone and iPad: open the file, Settings → Profile downloaded → Install; then Settings → General →
            About → Certificate trust settings, and switch it on.
          </li>
          <li>Windows: open the file → Install certificate → Trusted root certification authorities.</li>
          <li>macOS: open the file in Keychain Access, and set it to “Always trust”.</li>
          <li>
            Linux: in the browser’s settings under Certificates → Authorities → Import; trust it for websites.
          </li>
        </ul>
        <p className="small quiet">
          It can vouch for this machine’s names and for addresses of private networks, and for nothing else.
          Its key lies on the desk, readable by its owner alone; take the trust away again when the bench is
          no longer used.
        </p>
      </details>
    </section>
  );
}
