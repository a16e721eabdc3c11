import { useFormContext, useWatch } from 'react-hook-form';
import { Tessera } from '../../ui/Tessera';
import type { ContendersFormInput } from './contendersForm';

/** A factorial as a table: which contender is which combination, and which combinations are missing. */
export function FactorTable({ blind }: { blind: boolean }) {
  const { control } = useFormContext<ContendersFormInput>();
  const factors = useWatch({ control, name: 'factors' }) ?? [];
  const treatments = useWatch({ control, name: 'treatments' }) ?? [];
  const [first, second, ...rest] = factors;
  if (!first || !second) return null;
  const cell = (row: string, column: string) =>
    treatments.flatMap((t, index) =>
      t.levels?.[first.name] === row && t.levels?.[second.name] === column ? [{ t, index }] : [],
    );
  return (
    <div className="scroll-x" style={{ marginBottom: '1.2rem' }}>
      <table className="ledger">
        <caption className="sr-only">Contenders by factor</caption>
        <thead>
          <tr>
            <th>
              {first.name} × {[second, ...rest].map((f) => f.name).join(' × ')}
            </th>
            {second.levels.map((l) => (
              <th key={l}>{l}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {first.levels.map((row) => (
            <tr key={row}>
              <th scope="row">{row}</th>
              {second.levels.map((column) => {
                const here = cell(row, column);
                return (
                  <td key={column}>
                    {here.length === 0 && <span className="small quiet">not in the trial</span>}
                    {here.map(({ t, index }) => (
                      <span className="who" key={t.id} style={{ marginRight: '0.8rem' }}>
                        {!blind && <Tessera index={index} size={18} />}
                        <span>
                          {rest.length > 0
                            ? rest.map((f) => t.levels?.[f.name]).join(' · ')
                            : t.name || `contender ${index + 1}`}
                        </span>
                      </span>
                    ))}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
