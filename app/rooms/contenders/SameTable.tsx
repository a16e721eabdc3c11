import Button from '@mui/material/Button';
import { useState } from 'react';
import { get, useFormContext, useWatch } from 'react-hook-form';
import { type SizeKind, bareUnit, withUnit } from '~core/quantity/sizeText';
import { Caution } from '../../ui/Caution';
import { Tessera } from '../../ui/Tessera';
import type { ContendersFormInput } from './contendersForm';

interface Row {
  /** path inside a treatment */
  path: string;
  label: string;
  unit?: string;
  /** a size, in the units the trial is in */
  size?: SizeKind;
  numeric?: boolean;
}

const rowsOf = (unitNoun: string): Row[] => [
  { path: 'conditions.crop', label: 'Crop' },
  { path: 'conditions.variety', label: 'Variety' },
  { path: 'conditions.seedLot', label: 'Seed lot or mother plant' },
  { path: 'conditions.startSize', label: 'Start size' },
  { path: 'conditions.plantsPerUnit', label: `Plants in a ${unitNoun}`, numeric: true },
  { path: 'conditions.seedWeightG', label: 'Seed weight', size: 'weight' },
  { path: 'conditions.thousandSeedG', label: 'Thousand-seed weight', unit: 'g', numeric: true },
  { path: 'container', label: 'Container' },
  { path: 'conditions.containerVolumeL', label: 'Volume', size: 'volume' },
  { path: 'conditions.areaPerUnitCm2', label: 'Area', size: 'area' },
  { path: 'medium', label: 'Medium' },
  { path: 'conditions.mediumLot', label: 'Medium lot, bag' },
  { path: 'system', label: 'System' },
  { path: 'light', label: 'Light' },
  { path: 'conditions.lampW', label: `Lamp over a ${unitNoun}`, unit: 'W', numeric: true },
  { path: 'conditions.lampHours', label: 'Hours of light', unit: 'h a day', numeric: true },
  { path: 'conditions.ppfd', label: 'Photon flux', unit: 'µmol m⁻² s⁻¹', numeric: true },
  { path: 'water', label: 'Water' },
  { path: 'conditions.handling', label: 'Handling' },
  { path: 'conditions.finishDay', label: 'Ends on day', numeric: true },
];

/** Asked in every trial; the others open with “The whole list”. */
const usual = new Set(['Crop', 'Medium', 'Light', 'Water', 'Container', 'Area']);

/** Another unit a size may be typed in, as an example. */
const others: Record<SizeKind, readonly [beside: string, besideInches: string]> = {
  length: ['30 in', '76 cm'],
  area: ['9 sq ft', '729 cm²'],
  weight: ['2 oz', '12 g'],
  volume: ['5 gal', '20 L'],
};

const valueAt = (treatment: unknown, path: string): string => String(get(treatment, path) ?? '').trim();

/** “The same everything else”: a value for each contender, differences in sight. */
export function SameTable({
  unitNoun,
  locked,
  blind,
}: {
  unitNoun: string;
  locked: boolean;
  blind: boolean;
}) {
  const { control, register, setValue, formState } = useFormContext<ContendersFormInput>();
  const treatments = useWatch({ control, name: 'treatments' }) ?? [];
  const inches = useWatch({ control, name: 'inches' }) ?? false;
  const unitOf = (r: Row) =>
    r.size ? `${bareUnit(r.size, inches)}, or ${others[r.size][inches ? 1 : 0]}` : r.unit;
  const [all, setAll] = useState(false);
  const rows = rowsOf(unitNoun).map((r) => {
    const values = treatments.map((t) => valueAt(t, r.path).toLowerCase());
    const filled = values.filter(Boolean);
    const differs = new Set(filled).size > 1;
    return { ...r, differs, empty: filled.length === 0, whole: !differs && filled.length === values.length };
  });
  const openRows = rows.filter((r) => all || !r.empty || (!locked && usual.has(r.label)));
  const fed = treatments.map((t) => Boolean(t.conditions?.mediumFed));
  const anyFed = fed.includes(true);
  const called = (index: number) => treatments[index]?.name || `contender ${index + 1}`;
  // Where all are alike there is nothing to say by name.
  const compared = locked && !anyFed && openRows.every((r) => r.whole) ? [] : treatments;
  return (
    <div>
      <div className="scroll-x">
        <table className="ledger same">
          <thead>
            <tr>
              <th>alike for all</th>
              {compared.map((t, i) => (
                <th key={t.id ?? i}>
                  <span className="who" title={t.name}>
                    {!blind && <Tessera index={i} size={16} />} {called(i)}
                  </span>
                </th>
              ))}
              <th>
                <span className="sr-only">Fill</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {openRows.map((r) => (
              <tr key={r.path} className={r.differs ? 'differs' : undefined}>
                <th scope="row">
                  {r.label}
                  {!locked && unitOf(r) && <span className="unit"> {unitOf(r)}</span>}
                  {r.differs && <span className="small differs-word"> differs</span>}
                </th>
                {locked && r.whole && (
                  <td className="alike" colSpan={treatments.length}>
                    {valueAt(treatments[0], r.path)}
                  </td>
                )}
                {treatments.map((t, i) => {
                  if (locked)
                    return r.whole ? null : (
                      <td key={t.id ?? i} data-label={called(i)}>
                        {valueAt(t, r.path) || '–'}
                      </td>
                    );
                  const path = `treatments.${i}.${r.path}` as `treatments.${number}.container`;
                  const error = get(formState.errors, path) as { message?: string } | undefined;
                  return (
                    <td key={t.id ?? i} data-label={called(i)}>
                      <input
                        {...register(
                          path,
                          r.size ? { setValueAs: (text: string) => withUnit(text, r.size!, inches) } : {},
                        )}
                        inputMode={r.numeric ? 'decimal' : undefined}
                        className={r.numeric || r.size ? 'num' : undefined}
                        aria-label={`${r.label} of ${called(i)}`}
                        aria-invalid={error !== undefined}
                      />
                      {error?.message && (
                        <span role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
                          {error.message}
                        </span>
                      )}
                    </td>
                  );
                })}
                <td>
                  {!locked && treatments.length > 1 && valueAt(treatments[0], r.path) !== '' && (
                    <Button
                      size="small"
                      color="inherit"
                      aria-label={`${r.label}: copy to all`}
                      onClick={() =>
                        treatments.forEach((_, i) =>
                          setValue(
                            `treatments.${i}.${r.path}` as `treatments.${number}.container`,
                            valueAt(treatments[0], r.path),
                            { shouldDirty: true },
                          ),
                        )
                      }
                    >
                      copy to all
                    </Button>
                  )}
                </td>
              </tr>
            ))}
            {(!locked || anyFed) && (
              <tr className={anyFed ? 'differs' : undefined}>
                <th scope="row">Medium carries feed</th>
                {treatments.map((t, i) => (
                  <td key={t.id ?? i} data-label={called(i)}>
                    {locked ? (
                      fed[i] ? (
                        'yes'
                      ) : (
                        'no'
                      )
                    ) : (
                      <input
                        type="checkbox"
                        {...register(`treatments.${i}.conditions.mediumFed`)}
                        aria-label={`Medium of ${called(i)} carries feed`}
                      />
                    )}
                  </td>
                ))}
                <td />
              </tr>
            )}
          </tbody>
        </table>
      </div>
      {!locked && (
        <div className="inline-row" style={{ marginTop: '0.6rem' }}>
          <Button size="small" color="secondary" onClick={() => setAll(!all)}>
            {all ? 'Only what is filled in' : 'The whole list'}
          </Button>
        </div>
      )}
      {treatments.some((t) => /peat|perlite|vermiculite|compost/i.test(t.medium ?? '')) && (
        <div style={{ marginTop: '0.6rem' }}>
          <Caution>
            Dust of peat, perlite and vermiculite: damp it and wear a mask. With composts gloves, and wash
            hands.
          </Caution>
        </div>
      )}
    </div>
  );
}
