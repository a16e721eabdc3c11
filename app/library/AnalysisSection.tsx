import { useFormContext, useWatch } from 'react-hook-form';
import { Choice, Field } from '../form/fields';
import type { ProductFormInput } from './productForm';

/** How the label prints its figures. */
const printings = [
  [
    'basis',
    'Per cent of',
    [
      ['w/w', 'weight (w/w)'],
      ['w/v', 'volume (w/v)'],
    ],
  ],
  [
    'printedAs.main',
    'P and K are printed as',
    [
      ['oxide', 'P₂O₅ and K₂O'],
      ['element', 'P and K'],
    ],
  ],
  [
    'printedAs.secondary',
    'Ca, Mg, S are printed as',
    [
      ['element', 'Ca, Mg, S'],
      ['oxide', 'CaO, MgO, SO₃'],
    ],
  ],
] as const;

/** The guaranteed analysis, typed as the label prints it. */
export function AnalysisSection() {
  const { control } = useFormContext<ProductFormInput>();
  const { main, secondary } = useWatch({ control, name: 'analysis.printedAs' });
  return (
    <section className="section">
      <h2>Analysis on the label</h2>
      <p className="quiet">
        Per cent, as printed. Leave all empty for a product without one. The forms of nitrogen make the
        estimated strength sharper; leave them empty where the label doesn’t give them.
      </p>
      <div className="fields figures" style={{ maxWidth: '58rem' }}>
        {(
          [
            ['nPercent', 'N in all'],
            ['p2o5Percent', main === 'oxide' ? 'P₂O₅' : 'P'],
            ['k2oPercent', main === 'oxide' ? 'K₂O' : 'K'],
            ['caPercent', secondary === 'oxide' ? 'CaO' : 'Ca'],
            ['mgPercent', secondary === 'oxide' ? 'MgO' : 'Mg'],
            ['sPercent', secondary === 'oxide' ? 'SO₃' : 'S'],
            ['nitratePercent', 'N as nitrate'],
            ['ammoniumPercent', 'N as ammonium'],
            ['ureaPercent', 'N as urea'],
          ] as const
        ).map(([name, label]) => (
          <Field key={name} name={`analysis.${name}`} label={label} suffix="%" numeric />
        ))}
      </div>
      <div className="fields" style={{ maxWidth: '58rem', marginTop: '0.9rem' }}>
        {printings.map(([name, label, options]) => (
          <div className="w3" key={name}>
            <Choice name={`analysis.${name}`} label={label} options={options} />
          </div>
        ))}
        <div className="w6">
          <Field
            name="analysis.micros"
            label="Trace elements, silicon, chloride"
            placeholder="Fe 0.1, Mn 0.05, Zn 0.02"
            helperText="per cent, as elements"
          />
        </div>
      </div>
    </section>
  );
}
