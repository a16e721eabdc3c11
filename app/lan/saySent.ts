import type { Sent } from './guest';

/** Where something stands that was sent, in words. @param kept what is said once the host keeps it */
export function saySent({ state, said }: Sent, kept: string): string {
  if (state === 'kept') return kept;
  return state === 'sent'
    ? 'Sent: it lies in the letter-box until the host’s page is open. It isn’t kept yet.'
    : `Arrived, and not kept: ${said}`;
}
