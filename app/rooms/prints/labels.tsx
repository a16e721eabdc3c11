import { paperHere } from '../../ui/region';
import { titled } from '../../ui/title';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import QRCode from 'qrcode';
import { useState } from 'react';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { maskedPlan } from '~core/design/blinding';
import { numberIn } from '~core/quantity/number';
import { labelFace } from '~core/formats/labelFace';
import {
  type LabelBox,
  type LabelSheet,
  defaultSheet,
  describeLabelSheetError,
  labelBoxes,
  papers,
} from '~core/formats/labelSheet';
import { LABELS_TASK } from '~core/schedule/tasks';
import { z } from 'zod';
import { usePost } from '../../form/usePost';
import { appendEntries, loadTrial } from '../../store/trials';
import { Caution } from '../../ui/Caution';
import { download } from '../../ui/download';
import { RoomHead } from '../../ui/RoomHead';
import { Tessera } from '../../ui/Tessera';
import type { RoomArgs } from '../roomArgs';
import { command, done, toAction } from '../../form/command';
import { type LabelContent, bottleTags, jarTags, unitLabels } from './labelContent';
import { pdfBlob } from '../../ui/pdfBlob';
import { labelsDocument } from './labelsPdf';
import './labels.css';

export const meta = () => titled('Labels');

export async function clientLoader({ params }: RoomArgs) {
  const { row, state, shown, blind, key } = await loadTrial(params.trialId);
  // Names are never printed while the trial is blind; codes can be printed whenever there is a key.
  const named = {
    units: unitLabels(shown.plan, state.positions, blind, state.parts),
    bottles: bottleTags(shown.plan, blind),
  };
  const masked = key && !blind ? maskedPlan(row.plan, key) : null;
  const coded = blind
    ? named
    : masked && {
        units: unitLabels(masked, state.positions, true, state.parts),
        bottles: bottleTags(masked, true),
      };
  const jars = key && row.plan.blinding !== 'open' ? jarTags(row.plan, key) : [];
  const all = [
    ...named.units,
    ...named.bottles,
    ...jars,
    ...(coded ? [...coded.units, ...coded.bottles] : []),
  ];
  const qr = new Map(
    await Promise.all(
      [...new Set(all.map((l) => l.qr))].map(
        async (text) =>
          [text, await QRCode.toDataURL(text, { margin: 0, scale: 4, errorCorrectionLevel: 'M' })] as const,
      ),
    ),
  );
  return {
    plan: row.plan,
    blind,
    named,
    coded,
    jars,
    qr,
    printedAt: state.tasksDone.get(LABELS_TASK) ?? null,
  };
}

export const clientAction = toAction({
  labelsPrinted: command(z.object({ intent: z.literal('labelsPrinted') }), async (trialId) =>
    done(
      await appendEntries(trialId, [{ kind: 'taskDone', task: LABELS_TASK }]),
      'Written down: the labels are printed.',
    ),
  ),
});

const numbers: [key: Exclude<keyof LabelSheet, 'paper'>, label: string, low: number, high: number][] = [
  ['columns', 'Across', 1, 6],
  ['rows', 'Down', 1, 16],
  ['marginTopMm', 'Margin top, mm', 0, 60],
  ['marginLeftMm', 'Margin left, mm', 0, 60],
  ['gapMm', 'Gap, mm', 0, 20],
];

/** Labels of units and bottles on a sheet of one's own measures: printed, or as a PDF. */
export default function Labels() {
  const { plan, blind, named, coded, jars, qr, printedAt } = useLoaderData<typeof clientLoader>();
  const post = usePost();
  const asked = useSearchParams()[0].get('for');
  const first = asked === 'bottles' || (asked === 'jars' && jars.length > 0) ? asked : 'units';
  const [what, setWhat] = useState<'units' | 'bottles' | 'jars' | 'both'>(first);
  const [names, setNames] = useState<'names' | 'codes'>(blind ? 'codes' : 'names');
  const [paper, setPaper] = useState<LabelSheet['paper']>(paperHere);
  const [typed, setTyped] = useState<Record<string, string>>({
    ...Object.fromEntries(numbers.map(([key]) => [key, String(defaultSheet[key])])),
    skip: '0',
  });
  const [making, setMaking] = useState(false);
  const value = (key: string, low: number, high: number) => {
    const n = numberIn(typed[key] ?? '');
    const whole = key === 'columns' || key === 'rows' || key === 'skip';
    return n === null || n < low || n > high || (whole && !Number.isInteger(n)) ? null : n;
  };
  const wrong = numbers.filter(([key, , low, high]) => value(key, low, high) === null).map(([key]) => key);
  const skip = value('skip', 0, 200);
  const chosen = names === 'codes' && coded ? coded : named;
  const labels =
    what === 'units'
      ? chosen.units
      : what === 'bottles'
        ? chosen.bottles
        : what === 'jars'
          ? jars
          : [...chosen.units, ...chosen.bottles];
  const sheet = {
    paper,
    ...Object.fromEntries(
      numbers.map(([key, , low, high]) => [key, value(key, low, high) ?? defaultSheet[key]]),
    ),
  } as LabelSheet;
  const boxes = labelBoxes(sheet, labels.length, skip ?? 0);
  const printable = boxes.ok && wrong.length === 0 && skip !== null && labels.length > 0;
  const printed = () => {
    if (what === 'units' || what === 'both') post({ intent: 'labelsPrinted' });
  };
  const pdf = async () => {
    if (!boxes.ok) return;
    setMaking(true);
    try {
      const title = `${plan.code} labels`;
      download(
        await pdfBlob(labelsDocument(sheet, labels, boxes.value, title)),
        `${plan.code.toLowerCase()}-labels.pdf`,
      );
      printed();
    } finally {
      setMaking(false);
    }
  };
  return (
    <main className="labels-page" id="room">
      <div className="no-print">
        <RoomHead
          title="Labels"
          actions={
            <>
              <Button component={Link} to={`/trial/${plan.id}/layout`} color="secondary">
                Back to the layout
              </Button>
              <Button
                variant="outlined"
                color="secondary"
                disabled={!printable || making}
                onClick={() => void pdf()}
              >
                {making ? 'Making the PDF …' : 'Save as PDF'}
              </Button>
              <Button
                variant="contained"
                disabled={!printable}
                onClick={() => {
                  window.print();
                  printed();
                }}
              >
                Print the labels
              </Button>
            </>
          }
        >
          In walking order. Stick them on before anything is filled: identities get lost at transplanting.
          {printedAt && ' They were printed before; the log has the time.'}
        </RoomHead>
        <div className="inline-row" style={{ margin: '0 0 0.9rem', alignItems: 'flex-start' }}>
          <TextField
            select
            label="Labels for"
            value={what}
            onChange={(e) => setWhat(e.target.value as typeof what)}
            sx={{ width: 150 }}
          >
            <MenuItem value="units">{plan.unitNoun} labels</MenuItem>
            <MenuItem value="bottles">bottle tags</MenuItem>
            {jars.length > 0 && <MenuItem value="jars">jar tags, by code</MenuItem>}
            <MenuItem value="both">both</MenuItem>
          </TextField>
          <TextField
            select
            label="Say"
            value={names}
            disabled={blind}
            onChange={(e) => setNames(e.target.value as typeof names)}
            sx={{ width: 160 }}
            helperText={blind ? 'the trial is blind' : undefined}
          >
            <MenuItem value="names">names</MenuItem>
            <MenuItem value="codes" disabled={coded === null}>
              codes only{coded === null && ' (set the blinding first)'}
            </MenuItem>
          </TextField>
          <TextField
            select
            label="Paper"
            value={paper}
            onChange={(e) => setPaper(e.target.value as typeof paper)}
            sx={{ width: 110 }}
          >
            {Object.keys(papers).map((p) => (
              <MenuItem key={p} value={p}>
                {p}
              </MenuItem>
            ))}
          </TextField>
          {numbers.map(([key, label, low, high]) => (
            <TextField
              key={key}
              label={label}
              value={typed[key]}
              error={wrong.includes(key)}
              helperText={wrong.includes(key) ? `${low} to ${high}` : undefined}
              onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
              slotProps={{ htmlInput: { inputMode: 'decimal' } }}
              sx={{ width: 118 }}
            />
          ))}
          <TextField
            label="Skip used ones"
            value={typed.skip}
            error={skip === null}
            helperText={skip === null ? '0 to 200' : undefined}
            onChange={(e) => setTyped({ ...typed, skip: e.target.value })}
            slotProps={{ htmlInput: { inputMode: 'numeric' } }}
            sx={{ width: 118 }}
          />
        </div>
        {!boxes.ok && (
          <p role="alert" style={{ color: 'var(--porphyry)', marginBottom: '0.8rem' }}>
            {describeLabelSheetError(boxes.error)}
          </p>
        )}
        {what !== 'units' && (
          <div style={{ marginBottom: '0.9rem' }}>
            <Caution>
              Never keep feed in food or drink bottles without a label; out of children’s reach. The product’s
              own label stays the one that counts.
            </Caution>
          </div>
        )}
        {boxes.ok && (
          <p className="small quiet" style={{ marginBottom: '0.6rem' }}>
            {labels.length} labels of{' '}
            {boxes.value[0]
              ? `${Math.round(boxes.value[0].widthMm)} × ${Math.round(boxes.value[0].heightMm)} mm`
              : ''}{' '}
            on {(boxes.value.at(-1)?.page ?? 0) + 1} {boxes.value.at(-1)?.page ? 'sheets' : 'sheet'}
          </p>
        )}
      </div>
      {boxes.ok && <Sheets sheet={sheet} labels={labels} boxes={boxes.value} qr={qr} />}
    </main>
  );
}

function Sheets({
  sheet,
  labels,
  boxes,
  qr,
}: {
  sheet: LabelSheet;
  labels: readonly LabelContent[];
  boxes: readonly LabelBox[];
  qr: ReadonlyMap<string, string>;
}) {
  const { widthMm, heightMm } = papers[sheet.paper];
  const pages = (boxes.at(-1)?.page ?? -1) + 1;
  return (
    <div className="scroll-x sheets">
      {Array.from({ length: pages }, (_, page) => (
        <div key={page} className="label-sheet" style={{ width: `${widthMm}mm`, height: `${heightMm}mm` }}>
          {labels.map(
            (label, i) =>
              boxes[i]!.page === page && (
                <Label key={label.id} label={label} box={boxes[i]!} qr={qr.get(label.qr)} />
              ),
          )}
        </div>
      ))}
    </div>
  );
}

/** One label, in the sizes that its box and its words allow. */
function Label({ label, box, qr }: { label: LabelContent; box: LabelBox; qr: string | undefined }) {
  const face = labelFace(box, { ...label, title: `${label.title} ${label.letter}` });
  const mm = (n: number) => `${n}mm`;
  const title = (
    <div className="label-code" style={{ fontSize: mm(face.titleMm) }}>
      {label.title} <span className="label-letter">{label.letter}</span>
    </div>
  );
  const rest = (
    <>
      {label.name && <div style={{ fontSize: mm(face.nameMm) }}>{label.name}</div>}
      <div className="label-small" style={{ fontSize: mm(face.smallMm) }}>
        {label.small}
      </div>
    </>
  );
  return (
    <div
      className={`label${face.isStacked ? ' stacked' : ''}`}
      style={{
        left: mm(box.xMm),
        top: mm(box.yMm),
        width: mm(box.widthMm),
        height: mm(box.heightMm),
        padding: mm(face.padMm),
      }}
    >
      <span className="label-tile">
        <Tessera index={label.index} size={mm(face.tileMm)} />
      </span>
      {face.isStacked ? (
        title
      ) : (
        <div className="label-text">
          {title}
          {rest}
        </div>
      )}
      {face.isStacked && <div className="label-text">{rest}</div>}
      <img src={qr} alt={`QR code of ${label.qr}`} style={{ width: mm(face.qrMm) }} />
    </div>
  );
}
