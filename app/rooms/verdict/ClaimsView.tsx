import { z } from 'zod';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { type ReactNode, useMemo, useState } from 'react';
import type { SetClaim } from '~core/model/judgement';
import { type Plan, kindOf } from '~core/model/plan';
import { sayClaimCount } from '~core/say/onePage';
import { CLAIM_LINE, type JudgedClaim, claimVerdictNames, judgeClaims } from '~core/verdict/claims';
import type { Finding } from '~core/account/finding';
import { optionalNumber } from '../../form/schemaFields';
import { TypedField, faultIn } from '../../form/TypedField';
import { NotKept } from '../../form/NotKept';
import { useKept } from '../../form/useKept';
import { nameIn } from '../findings/findingData';

interface Props {
  plan: Plan;
  findings: readonly Finding[];
  /** findings at the rounds that claims name */
  dated: readonly Finding[];
  stored: SetClaim[];
  /** of the trial it is read from */
  rev: number;
}

const tone: Record<JudgedClaim['verdict'], string> = {
  borneOut: 'good',
  inPart: 'open',
  notShown: 'open',
  contradicted: 'bad',
  notTested: 'plain',
};

/** Claims of the labels, each set against what was measured, and what the trial says of it. */
export function ClaimsView({ plan, findings, dated, stored, rev }: Props) {
  const { shown, keep, refused } = useKept('claims', stored, rev);
  const nameOf = useMemo(() => nameIn(plan), [plan]);
  const judged = judgeClaims(plan, shown, findings, nameOf, dated);
  if (judged.length === 0) {
    return (
      <p className="quiet">
        No product of this trial has a claim written down. What labels promise is entered with the product, in
        the library.
      </p>
    );
  }
  const set = (claim: JudgedClaim, over: Partial<SetClaim>) => {
    const own = claim.set ?? firstSetting(plan, claim);
    const others = shown.filter((s) => !(s.claimId === claim.claim.id && s.productId === claim.product.id));
    keep([...others, { ...own, ...over }]);
  };
  return (
    <div className="claims">
      <h2>{sayClaimCount(judged)}</h2>
      {judged.map((j) => (
        <OneClaim
          key={`${j.product.id}/${j.claim.id}`}
          plan={plan}
          judged={j}
          onSet={(over) => set(j, over)}
        />
      ))}
      <p className="small quiet">{CLAIM_LINE}</p>
      <NotKept refused={refused} />
    </div>
  );
}

const sizeAsked = 'A per cent, such as 25.';
const claimed = optionalNumber().pipe(z.number().min(0, sizeAsked).max(10_000, sizeAsked).nullable());

/** What a claim is set to when it is first touched: the contender that has the product, more of the deciding trait. */
function firstSetting(plan: Plan, { claim, product }: JudgedClaim): SetClaim {
  const has =
    plan.treatments.find((t) => t.products.some((u) => u.productId === product.id)) ?? plan.treatments[0]!;
  return {
    ...{ claimId: claim.id, productId: product.id, treatmentId: has.id, traitId: null },
    ...{ direction: 'more', percent: null, upTo: /\bup to\b/i.test(claim.text), absolute: false },
  };
}

function OneClaim({
  plan,
  judged: { claim, product, set, verdict, text },
  onSet,
}: {
  plan: Plan;
  judged: JudgedClaim;
  onSet: (over: Partial<SetClaim>) => void;
}) {
  const [size, setSize] = useState(set?.percent == null ? '' : String(set.percent));
  const [fault, setFault] = useState('');
  // Once open it stays open: it is being said.
  const [unsaid] = useState(set === null);
  const trait = plan.traits.find((t) => t.id === set?.traitId);
  const shares = trait !== undefined && kindOf(trait).observes === 'kOfN';
  const rounds = plan.rounds.filter((r) => trait && r.traitIds.includes(trait.id));
  const keepSize = (text = size) => {
    const read = claimed.safeParse(text);
    setSize(text);
    setFault(faultIn(claimed, text));
    if (read.success) onSet({ percent: read.data });
  };
  const withProduct = plan.treatments.filter((t) => t.products.some((u) => u.productId === product.id));
  return (
    <section className={`claim ${tone[verdict]}`} aria-label={`${product.name}: ${claim.text}`}>
      <h2>
        <span className="small quiet">{product.name}</span>“{claim.text}”
      </h2>
      <p className="stamp">
        <Stamp verdict={verdict} />
        {claimVerdictNames[verdict]}
      </p>
      <p>{text}</p>
      <details className="no-print" open={unsaid}>
        <summary className="small">{set?.traitId ? 'How it was judged' : 'Say what it bears on'}</summary>
        <div className="inline-row" style={{ margin: '0.7rem 0 0.3rem' }}>
          <TextField
            select
            size="small"
            label="Bears on"
            value={set?.traitId ?? ''}
            sx={{ width: 200 }}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            onChange={(e) => onSet({ traitId: e.target.value === '' ? null : e.target.value })}
          >
            <MenuItem value="">nothing measured here</MenuItem>
            {plan.traits
              .filter((t) => kindOf(t).observes !== 'words')
              .map((t) => (
                <MenuItem key={t.id} value={t.id}>
                  {t.name}
                </MenuItem>
              ))}
          </TextField>
          {set?.traitId && (
            <>
              {withProduct.length > 1 && (
                <TextField
                  select
                  size="small"
                  label="With its own dose in"
                  value={set.treatmentId}
                  sx={{ width: 190 }}
                  onChange={(e) => onSet({ treatmentId: e.target.value })}
                >
                  {withProduct.map((t) => (
                    <MenuItem key={t.id} value={t.id}>
                      {t.name}
                    </MenuItem>
                  ))}
                </TextField>
              )}
              {!set.absolute && (
                <TextField
                  select
                  size="small"
                  label="Against"
                  value={set.againstId ?? ''}
                  sx={{ width: 170 }}
                  slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
                  onChange={(e) => onSet({ againstId: e.target.value || undefined })}
                >
                  <MenuItem value="">the control</MenuItem>
                  {plan.treatments
                    .filter((t) => t.id !== set.treatmentId)
                    .map((t) => (
                      <MenuItem key={t.id} value={t.id}>
                        {t.name}
                      </MenuItem>
                    ))}
                </TextField>
              )}
              {rounds.length > 1 && (
                <TextField
                  select
                  size="small"
                  label="By when"
                  value={set.roundId ?? ''}
                  sx={{ width: 170 }}
                  slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
                  onChange={(e) => onSet({ roundId: e.target.value || undefined })}
                >
                  <MenuItem value="">the end</MenuItem>
                  {rounds.map((r) => (
                    <MenuItem key={r.id} value={r.id}>
                      {r.name}, day {r.day}
                    </MenuItem>
                  ))}
                </TextField>
              )}
              <TextField
                select
                size="small"
                label="Claims"
                value={set.direction}
                sx={{ width: 110 }}
                onChange={(e) => onSet({ direction: e.target.value as SetClaim['direction'] })}
              >
                <MenuItem value="more">more</MenuItem>
                <MenuItem value="less">less</MenuItem>
              </TextField>
              <TypedField
                label={set.absolute ? 'Share' : 'Size'}
                suffix="%"
                of={claimed}
                value={size}
                fault={fault}
                onType={setSize}
                sx={{ width: 120 }}
                onPick={keepSize}
                onBlur={() => keepSize()}
                onKeyDown={(e) => e.key === 'Enter' && keepSize()}
              />
              <FormControlLabel
                control={
                  <Checkbox
                    size="small"
                    checked={set.upTo}
                    onChange={(e) => onSet({ upTo: e.target.checked })}
                  />
                }
                label="“up to”"
              />
              {shares && (
                <FormControlLabel
                  control={
                    <Checkbox
                      size="small"
                      checked={set.absolute}
                      onChange={(e) => onSet({ absolute: e.target.checked })}
                    />
                  }
                  label="of all, not against the control"
                />
              )}
            </>
          )}
        </div>
      </details>
    </section>
  );
}

/** What became of a claim, as a mark that reads without its colour: full, half, empty, crossed, broken. */
const marks: Record<JudgedClaim['verdict'], ReactNode> = {
  borneOut: <rect x="1" y="1" width="14" height="14" rx="2" fill="currentColor" />,
  inPart: (
    <>
      <rect x="1" y="1" width="14" height="14" rx="2" fill="none" stroke="currentColor" strokeWidth="2" />
      <rect x="1" y="1" width="7" height="14" fill="currentColor" />
    </>
  ),
  notShown: (
    <rect x="2" y="2" width="12" height="12" rx="2" fill="none" stroke="currentColor" strokeWidth="2" />
  ),
  contradicted: (
    <>
      <rect x="2" y="2" width="12" height="12" rx="2" fill="none" stroke="currentColor" strokeWidth="2" />
      <path d="M3 3 13 13M13 3 3 13" stroke="currentColor" strokeWidth="2" />
    </>
  ),
  notTested: (
    <rect
      {...{ x: 2, y: 2, width: 12, height: 12, rx: 2, fill: 'none', stroke: 'currentColor', strokeWidth: 2 }}
      strokeDasharray="3 3"
    />
  ),
};

function Stamp({ verdict }: { verdict: JudgedClaim['verdict'] }) {
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
      {marks[verdict]}
    </svg>
  );
}
