import { titled } from '../../ui/title';
import { Link, useLocation } from 'react-router';
import { readPairingHash } from '../../lan/pairing';
import { PairHere } from './PairHere';

export const meta = () => titled('Pair');

/** Where a pairing code leads. */
export default function Pair() {
  const link = readPairingHash(useLocation().hash);
  return (
    <main className="page-message">
      <h1>Pair this device</h1>
      {link === null ? (
        <p>The link isn’t whole. Scan its code once more, or type the code under Devices.</p>
      ) : (
        <>
          <p>It gets a copy of the bench of its own, and hands over what is logged on it.</p>
          <PairHere code={link.code} keyText={link.key} />
        </>
      )}
      <p>
        <Link to="/devices">Devices</Link>
      </p>
    </main>
  );
}
