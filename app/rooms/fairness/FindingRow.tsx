import Button from '@mui/material/Button';
import { useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { Link } from 'react-router';
import { z } from 'zod';
import type { AuditFinding } from '~core/fairness/audit';
import type { PlanRoom } from '~core/fairness/rule';
import { Field } from '../../form/fields';
import { usePost, useSend } from '../../form/usePost';
import { useTypedForm } from '../../form/useTypedForm';

const roomNames: Record<PlanRoom, string> = {
  rounds: 'Rounds',
  question: 'Question',
  contenders: 'Contenders',
  layout: 'Layout',
  mixing: 'Mixing',
  labels: 'the labels',
  review: 'Review',
  library: 'the library',
};

export const freshSeed = () => crypto.getRandomValues(new Uint32Array(1))[0]! % 1_000_000;

const Reason = z.object({ reason: z.string().trim().min(1, 'Say why in a few words.') });

interface Props {
  trialId: string;
  finding: AuditFinding;
  codes: Record<string, string>;
  locked: boolean;
  hidden: boolean;
}

/** One finding: what was found, why it matters, the cure with its button, or a reason to accept it. */
export function FindingRow({ trialId, finding, codes, locked, hidden }: Props) {
  const post = usePost();
  const send = useSend();
  const [accepting, setAccepting] = useState(false);
  const { ruleId, severity, accepted } = finding;
  const where = finding.room === 'library' ? '/library' : `/trial/${trialId}/${finding.room}`;
  const { form, onSubmit } = useTypedForm(Reason, { reason: '' }, async ({ reason }) => {
    const isKept = await send({ intent: 'accept', ruleId, reason });
    if (isKept) setAccepting(false);
    return isKept;
  });
  return (
    <article className={`finding ${accepted === null ? severity : 'accepted'}`} data-rule={ruleId}>
      <div>
        <h3>{finding.title}</h3>
        {!hidden && (
          <p>
            {finding.found}
            {finding.units && finding.units.length > 0 && finding.units.length <= 8 && (
              <span className="num small quiet"> {finding.units.map((u) => codes[u]).join(' ')}</span>
            )}
          </p>
        )}
        <p className="small quiet">{finding.why}</p>
        {accepted !== null && (
          <p className="small">
            <span className="quiet">Accepted:</span> {accepted}
          </p>
        )}
        {accepting && (
          <FormProvider {...form}>
            <form onSubmit={onSubmit} noValidate className="inline-row accept">
              <Field
                name="reason"
                label="Why it stays so; the review prints this"
                autoFocus
                sx={{ flex: '1 1 20rem' }}
              />
              <Button type="submit" variant="outlined" color="secondary">
                Accept it
              </Button>
              <Button color="inherit" onClick={() => setAccepting(false)}>
                Cancel
              </Button>
            </form>
          </FormProvider>
        )}
      </div>
      {!locked && (
        <div className="cure">
          {accepted === null ? (
            <>
              <p className="small">{finding.cure}</p>
              <div className="inline-row">
                {finding.fixLabel && (
                  <Button
                    size="small"
                    variant="outlined"
                    color="secondary"
                    onClick={() => post({ intent: 'cure', ruleId, seed: freshSeed() })}
                  >
                    {finding.fixLabel}
                  </Button>
                )}
                <Button size="small" color="secondary" component={Link} to={where}>
                  Go to {roomNames[finding.room]}
                </Button>
                {!accepting && (
                  <Button size="small" color="inherit" onClick={() => setAccepting(true)}>
                    Accept …
                  </Button>
                )}
              </div>
            </>
          ) : (
            <div>
              <Button size="small" color="inherit" onClick={() => post({ intent: 'unaccept', ruleId })}>
                Open it again
              </Button>
            </div>
          )}
        </div>
      )}
    </article>
  );
}
