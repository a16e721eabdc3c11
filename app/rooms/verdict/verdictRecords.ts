import { z } from 'zod';
import type { ReviewText } from '~core/log/trial';
import { CardHeading, CostSettings, SetClaim, noCosts } from '~core/model/judgement';
import { recordForm } from '../../form/recordForm';

/** A part of the review that is kept with every change. */
const part = <S extends z.ZodType>(
  name: string,
  schema: S,
  of: (review: ReviewText) => z.output<S>,
  apply: (review: ReviewText, value: z.output<S>) => ReviewText,
) => recordForm({ name, schema, of, apply });

/** The scorecard's headings, how claims are set, what else is counted in the cost. */
export const verdictRecords = [
  part(
    'headings',
    z.array(CardHeading).max(20),
    (r) => r.headings ?? [],
    (r, headings) => ({ ...r, headings }),
  ),
  part(
    'claims',
    z.array(SetClaim).max(200),
    (r) => r.claims ?? [],
    (r, claims) => ({ ...r, claims }),
  ),
  part(
    'costs',
    CostSettings,
    (r) => r.costs ?? noCosts,
    (r, costs) => ({ ...r, costs }),
  ),
] as const;
