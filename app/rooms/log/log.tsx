import Button from '@mui/material/Button';
import dayjs from 'dayjs';
import { useState } from 'react';
import { useLoaderData } from 'react-router';
import { z } from 'zod';
import { jarCodes, jarsOf } from '~core/mixing/jars';
import { EntryBody } from '~core/model/entry';
import { EntryId } from '~core/model/ids';
import { type ActionResult, fieldErrors } from '../../form/schemaFields';
import { useDeed } from '../../form/useDeed';
import { appendEntries, loadTrial } from '../../store/trials';
import { useNotice } from '../../ui/Notices';
import { quietButton } from '../../ui/quietButton';
import { RoomHead } from '../../ui/RoomHead';
import { LogDialog } from '../LogDialog';
import type { RoomArgs } from '../roomArgs';
import { logLines, staysFor } from './logLines';

const LogRoomForm = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('write'), body: EntryBody }),
  z.object({ intent: z.literal('takeBack'), id: EntryId }),
]);

export async function clientLoader({ params }: RoomArgs) {
  const { row, log, shown, key } = await loadTrial(params.trialId);
  return { plan: shown.plan, lines: logLines(shown.plan, log, shown, jarCodes(jarsOf(row.plan, key))) };
}

export async function clientAction({ params, request }: RoomArgs): Promise<ActionResult> {
  const parsed = LogRoomForm.safeParse(await request.json());
  if (!parsed.success) return { errors: fieldErrors(parsed.error) };
  const form = parsed.data;
  if (form.intent === 'takeBack') {
    const { log } = await loadTrial(params.trialId);
    const line = log.find((e) => e.id === form.id);
    if (!line) return { errors: { id: 'There is no such line.' } };
    if (staysFor(line.kind)) return { errors: { id: 'This line stays.' } };
  }
  await appendEntries(
    params.trialId,
    form.intent === 'write'
      ? [form.body]
      : [{ kind: 'correction', supersedes: form.id, replacement: null, reason: 'taken back' }],
  );
  return { saved: true };
}

const PAGE = 200;

export default function LogRoom() {
  const { plan, lines } = useLoaderData<typeof clientLoader>();
  const send = useDeed();
  const notice = useNotice();
  const [writing, setWriting] = useState(false);
  const [shown, setShown] = useState(PAGE);
  const takeBack = (id: string) => {
    send({ intent: 'takeBack', id });
    notice({ text: 'Taken back by a new line; the old one stays below.' });
  };
  return (
    <>
      <RoomHead
        title="The log"
        actions={
          <Button variant="contained" onClick={() => setWriting(true)}>
            Write something down
          </Button>
        }
      >
        Everything that happened in this trial, newest first. Nothing is overwritten: a correction is a new
        line, and the old value stays.
      </RoomHead>
      {lines.length === 0 ? (
        <p className="quiet">
          Nothing yet. The first line will be the seal of the plan of “{plan.question}”.
        </p>
      ) : (
        <div className="scroll-x">
          <table className="ledger">
            <thead>
              <tr>
                <th>when</th>
                <th>what</th>
                <th>who</th>
                <th aria-label="take back" />
              </tr>
            </thead>
            <tbody>
              {lines.slice(0, shown).map((l) => (
                <tr key={l.id}>
                  <td className="num small" style={{ whiteSpace: 'nowrap' }}>
                    {dayjs(l.at).format('D MMM YYYY HH:mm')}
                  </td>
                  <td>
                    <strong>{l.what}</strong> <span className={l.standing ? undefined : 'was'}>{l.text}</span>
                    {l.remark && <div className="small quiet">{l.remark}</div>}
                  </td>
                  <td className="small">{l.by}</td>
                  <td className="n">
                    {l.canTakeBack && (
                      <Button
                        size="small"
                        color="inherit"
                        sx={quietButton}
                        onClick={() => takeBack(l.id)}
                        aria-label={`Take back: ${l.what} ${l.text}`}
                      >
                        Take back
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {lines.length > shown && (
        <Button color="secondary" onClick={() => setShown(shown + PAGE)} sx={{ mt: 1 }}>
          Show {Math.min(PAGE, lines.length - shown)} more of {lines.length - shown}
        </Button>
      )}
      {writing && (
        <LogDialog
          unit={null}
          onClose={() => setWriting(false)}
          onKeep={(body) => send({ intent: 'write', body })}
        />
      )}
    </>
  );
}
