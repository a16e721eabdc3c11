import { command, done, toAction } from '../../form/command';
import { type Refused, refuse } from '../../form/recordForm';
import { ok } from '~core/model/result';
import { takenBack } from '../../store/change';
import { clockTime, longDate } from '../../ui/clock';
import { OpenButton } from '../../ui/OpenButton';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { useLoaderData } from 'react-router';
import { z } from 'zod';
import { codesByProduct, productCodesOf } from '~core/mixing/productCodes';
import { type Entry, EntryBody } from '~core/log/entry';
import { sentenceCase } from '~core/quantity/format';
import { isReason } from '~core/log/afterOpening';
import { whyItStays } from '~core/log/state';
import { EntryId } from '~core/model/ids';
import { usePost, useSend } from '../../form/usePost';
import { entryKinds } from '~core/log/kinds';
import { isWaiting, openConflicts, settleConflict } from '../../store/conflicts';
import { appendEntries, loadTrial } from '../../store/trials';
import { quietButton } from '../../ui/quietButton';
import { VirtualRows } from '../../ui/VirtualRows';
import { RoomHead } from '../../ui/RoomHead';
import { LogDialog } from '../../walk/LogDialog';
import { useSitting } from '../../walk/useSitting';
import type { RoomArgs } from '../roomArgs';
import { AskDialog } from '../../form/AskDialog';
import { ConflictList } from './ConflictList';
import { WaitingList } from './WaitingList';
import {
  kindOfLine,
  logLines,
  logRows,
  nameOfLine,
  sayLine,
  staysFor,
  textOfLine,
  wordsFor,
} from './logLines';

export async function clientLoader({ params }: RoomArgs) {
  const { row, shown, key, blind } = await loadTrial(params.trialId);
  const codes = codesByProduct(productCodesOf(row.plan, key));
  const words = wordsFor(shown.plan, codes, blind);
  const beside = await openConflicts(row.id);
  const here = new Map<string, Entry>(shown.log.map((e) => [e.id, e]));
  const all = new Map<string, Entry>([...beside.map((c) => [c.id, c.other] as const), ...here]);
  const waiting = beside.flatMap(({ id, sha256, other, why = '', from = '' }) =>
    here.has(id)
      ? []
      : [
          {
            ...{ id, sha256, why, from, by: other.by, at: other.at, what: nameOfLine(other) },
            text: textOfLine(other, all, words),
          },
        ],
  );
  const conflicts = beside.flatMap(({ id, sha256, other }) => {
    const own = here.get(id);
    return own ? [{ id, sha256, own: sayLine(own, words), other: sayLine(other, words) }] : [];
  });
  return { plan: shown.plan, lines: logLines(shown.plan, shown, codes, blind), conflicts, waiting };
}

const Reason = z
  .string()
  .trim()
  .max(500)
  .refine(isReason, 'Say why: the codes are open, and the review prints it.');

export const clientAction = toAction({
  write: command(z.object({ body: EntryBody }), async (trialId, { body }, happened) =>
    done(await appendEntries(trialId, [body], happened), 'Written down.'),
  ),
  takeBack: command(z.object({ id: EntryId, reason: Reason.optional() }), async (trialId, { id, reason }) => {
    const written = await appendEntries<Refused>(trialId, ({ log, state }) => {
      const line = log.find((e) => e.id === id);
      if (!line) return refuse('id', 'There is no such line.');
      if (staysFor(kindOfLine(line))) return refuse('id', 'This line stays.');
      const why = whyItStays(state, line);
      if (why !== null) return refuse('id', why);
      const goesWith = line.kind === 'correction' ? [] : entryKinds[line.kind].goesWith(line, state.entries);
      return ok([id, ...goesWith].map((each) => takenBack(each, reason)));
    });
    return done(written, 'Taken back by a new line; the old one stays below.');
  }),
  settleAll: command(z.object({ as: z.enum(['kept', 'taken']) }), async (trialId, { as }) => {
    const { log } = await loadTrial(trialId);
    for (const row of await openConflicts(trialId!))
      if (isWaiting(row, log)) await settleConflict(trialId!, row.id, row.sha256, as);
    return ok({});
  }),
  settle: command(
    z.object({ id: EntryId, sha256: z.string(), as: z.enum(['kept', 'taken']) }),
    async (trialId, { id, sha256, as }) => {
      await settleConflict(trialId!, id, sha256, as);
      return ok({});
    },
  ),
});

const toggled = (set: ReadonlySet<string>, id: string): ReadonlySet<string> =>
  new Set(set.has(id) ? [...set].filter((x) => x !== id) : [...set, id]);

/** What decides the findings isn't taken back without a reason once the codes are open. */
const Why = z
  .string()
  .trim()
  .max(500, 'At most 500 letters.')
  .refine(isReason, 'Say why: the review prints it.');

export default function LogRoom() {
  const { plan, lines, conflicts, waiting } = useLoaderData<typeof clientLoader>();
  const post = usePost();
  const send = useSend();
  const [writing, setWriting] = useState(false);
  const [asking, setAsking] = useState<{ id: string; what: string; text: string } | null>(null);
  const sitting = useSitting(plan, { id: 'log', name: 'The log', day: null });
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(() => logRows(lines, opened), [lines, opened]);
  const takeBack = (id: string) => post({ intent: 'takeBack', id });
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
      <WaitingList
        lines={waiting}
        onAll={(as) => post({ intent: 'settleAll', as })}
        onSettle={(c, as) => post({ intent: 'settle', id: c.id, sha256: c.sha256, as })}
      />
      <ConflictList
        conflicts={conflicts}
        onSettle={(c, as) => post({ intent: 'settle', id: c.id, sha256: c.sha256, as })}
      />
      {lines.length === 0 ? (
        <p className="quiet">
          Nothing yet. The first line will be the seal of the plan of “{plan.question}”.
        </p>
      ) : (
        <div className="scroll-x">
          <table className="ledger as-rows" aria-rowcount={rows.length + 1}>
            <thead>
              <tr>
                <th>when</th>
                <th>what</th>
                <th>who</th>
                <th>
                  <span className="sr-only">take back</span>
                </th>
              </tr>
            </thead>
            <VirtualRows rows={rows} columns={4} guess={46}>
              {(row, own) => {
                if (row.kind === 'day')
                  return (
                    <tr key={row.id} {...own} className="log-day">
                      <th colSpan={4} scope="rowgroup">
                        {longDate(row.day)}
                      </th>
                    </tr>
                  );
                if (row.kind === 'many')
                  return (
                    <tr key={row.id} {...own}>
                      <td className="num small">{clockTime(row.from)}</td>
                      <td>
                        <strong>{sentenceCase(row.what)}</strong> {row.sitting}: {row.count} lines, until{' '}
                        {clockTime(row.to)}
                      </td>
                      <td className="small" data-label="who">
                        {row.by}
                      </td>
                      <td className="n">
                        <OpenButton
                          called={`${row.what} ${row.sitting}`}
                          open={row.open}
                          onOpen={() => setOpened((before) => toggled(before, row.id))}
                        />
                      </td>
                    </tr>
                  );
                const l = row.line;
                return (
                  <tr key={l.id} {...own}>
                    <td className="num small">{clockTime(l.at)}</td>
                    <td>
                      <strong>{l.what}</strong>{' '}
                      <span className={l.standing ? undefined : 'was'}>{l.text}</span>
                      {l.remark && <div className="small quiet">{l.remark}</div>}
                    </td>
                    <td className="small" data-label="who">
                      {l.by}
                    </td>
                    <td className="n">
                      {l.canTakeBack && (
                        <Button
                          size="small"
                          color="inherit"
                          sx={quietButton}
                          onClick={() => (l.asksReason ? setAsking(l) : takeBack(l.id))}
                          aria-label={`Take back: ${l.what} ${l.text}`}
                        >
                          Take back
                        </Button>
                      )}
                    </td>
                  </tr>
                );
              }}
            </VirtualRows>
          </table>
        </div>
      )}
      {asking && (
        <AskDialog
          title={`Take back “${asking.what} ${asking.text}”`}
          label="Why"
          doLabel="Take it back"
          of={Why}
          onKeep={(reason) => send({ intent: 'takeBack', id: asking.id, reason })}
          onClose={() => setAsking(null)}
        >
          <p>
            The codes are open: you know whose value it is. It can be taken back with a reason; the review
            prints the reason, and the finding as it stood before.
          </p>
        </AskDialog>
      )}
      {writing && (
        <LogDialog
          unit={null}
          onClose={() => setWriting(false)}
          sitting={sitting}
          onKeep={(body, when) => send({ intent: 'write', body, ...(when && { when }) })}
        />
      )}
    </>
  );
}
