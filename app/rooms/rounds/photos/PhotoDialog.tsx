import { formatFigure } from '~core/quantity/format';
import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Slider from '@mui/material/Slider';
import { type PointerEvent, useEffect, useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { Plan } from '~core/model/plan';
import { blobUrls } from '../../../store/blobUrls';
import type { Saying } from '../../../store/change';
import { usePost } from '../../../form/usePost';
import { useNotice } from '../../../ui/Notices';
import { PickOne } from '../../../ui/PickOne';
import { balanceFilter } from './balanceFilter';
import { type Measured, keepBalance, keepCover, measureCover } from './keepPhotos';
import { type Photo, type Spot, coverTrait } from './photoData';
import { optionalSize } from '../../../form/schemaFields';
import { TypedField } from '../../../form/TypedField';
import { EntryDialog } from '../../../ui/EntryDialog';

interface Props {
  plan: Plan;
  photo: Photo;
  code: string;
  spot: Spot | null;
  /** earlier pictures of the same unit */
  earlier: readonly Photo[];
  onClose: () => void;
  onChanged: () => void;
}

interface Corner {
  x: number;
  y: number;
}
type Tool = 'look' | 'outline' | 'scale' | 'grey' | 'wipe';

/** How long a drawn line is, as it is typed. */
const knownLength = optionalSize('length');

/** One picture: looked at, held against an earlier one, its unit outlined, its cover measured and kept. */
export function PhotoDialog({ plan, photo, code, spot, earlier, onClose, onChanged }: Props) {
  const post = usePost();
  const notice = useNotice();
  const [urls, setUrls] = useState<ReadonlyMap<string, string>>(new Map());
  const [tool, setTool] = useState<Tool>('look');
  const [region, setRegion] = useState<Corner[]>(spot?.region ?? []);
  const [scale, setScale] = useState<Corner[]>(spot?.scale ? [spot.scale.a, spot.scale.b] : []);
  const [cm, setCm] = useState(spot?.scale ? String(spot.scale.cm) : '');
  const [measured, setMeasured] = useState<Measured | null>(null);
  const [busy, setBusy] = useState(false);
  const [wipe, setWipe] = useState(50);
  const [before, setBefore] = useState<Photo['entryId'] | ''>(earlier.at(-1)?.entryId ?? '');
  const old = earlier.find((p) => p.entryId === before);
  useEffect(() => {
    let gone = false;
    void blobUrls([photo.sha256, ...(old ? [old.sha256] : [])]).then((found) => {
      if (!gone) setUrls(found);
    });
    return () => {
      gone = true;
    };
  }, [photo.sha256, old]);
  const length = knownLength.safeParse(cm).data ?? null;
  const drawn: Spot | null =
    region.length >= 3 || (scale.length === 2 && length !== null)
      ? {
          unitId: photo.unitId,
          region: region.length >= 3 ? region : null,
          scale: scale.length === 2 && length !== null ? { a: scale[0]!, b: scale[1]!, cm: length } : null,
        }
      : null;
  const measure = async (threshold: number | null) => {
    setBusy(true);
    const found = await measureCover(photo, drawn, threshold, true);
    setBusy(false);
    if (!found) notice({ text: 'This picture isn’t on this device.' });
    else setMeasured(found);
  };
  const onPoint = (e: PointerEvent<HTMLElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const clamp = (x: number) => Math.min(1, Math.max(0, x));
    const point = {
      x: clamp((e.clientX - box.left) / box.width),
      y: clamp((e.clientY - box.top) / box.height),
    };
    if (tool === 'outline') setRegion([...region, point]);
    if (tool === 'grey') void tapCard(point);
    if (tool === 'scale') setScale(scale.length >= 2 ? [point] : [...scale, point]);
  };
  const tapCard = async (point: Corner) => {
    const refusal = await keepBalance(plan.id, photo, point);
    notice({
      text: refusal ?? 'Colours are balanced by the card; the picture itself stays as it was taken.',
    });
    if (!refusal) onChanged();
  };
  const keepSpot = (unitId: UnitId | null) => {
    if (!drawn) return;
    const body: Saying = { kind: 'spot', ...drawn, unitId };
    post({ body });
  };
  const keep = async () => {
    if (!measured) return;
    const refusal = await keepCover(plan.id, plan, photo, measured, coverTrait(plan.traits));
    notice({ text: refusal ?? 'The cover is in the log.' });
    if (!refusal) onChanged();
  };
  const remove = () => {
    const ids = [photo.standsFrom];
    post({ intent: 'takeBack', ids });
    notice({
      text: `The photo of ${code}, day ${photo.day}, is taken back; its line stays in the log.`,
      undo: () => post({ intent: 'bringBack', ids }),
    });
    onClose();
  };
  const url = urls.get(photo.sha256);
  return (
    <EntryDialog onClose={onClose} maxWidth="md">
      <DialogTitle>
        {code}, day {photo.day}
      </DialogTitle>
      <DialogContent className="photo-desk">
        <div className="stage" onPointerDown={onPoint}>
          {url ? (
            <img src={url} alt={`${code} on day ${photo.day}`} style={{ filter: balanceFilter(photo) }} />
          ) : (
            <p className="quiet">Not on this device.</p>
          )}
          {tool === 'wipe' && old && urls.get(old.sha256) && (
            <img
              className="over"
              src={urls.get(old.sha256)}
              alt={`${code} on day ${old.day}`}
              style={{ clipPath: `inset(0 ${100 - wipe}% 0 0)`, objectFit: 'fill' }}
            />
          )}
          {measured?.overlay && tool !== 'wipe' && (
            <img className="over" src={measured.overlay} alt="What counts as plant, in verdigris" />
          )}
          <svg className="over" viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
            <polygon
              points={region.map((p) => `${p.x * 100},${p.y * 100}`).join(' ')}
              fill="none"
              stroke="#fffbf3"
              strokeWidth="2.5"
              vectorEffect="non-scaling-stroke"
            />
            {scale.length === 2 && (
              <line
                x1={scale[0]!.x * 100}
                y1={scale[0]!.y * 100}
                x2={scale[1]!.x * 100}
                y2={scale[1]!.y * 100}
                stroke="#f0b64a"
                strokeWidth="2.5"
                vectorEffect="non-scaling-stroke"
              />
            )}
          </svg>
        </div>
        <div className="photo-tools">
          <div className="inline-row">
            <Button variant="contained" disabled={busy || !url} onClick={() => void measure(null)}>
              {busy ? 'Measuring …' : 'Measure the cover'}
            </Button>
            {measured && (
              <p style={{ margin: 0 }} role="status">
                <strong className="num">{formatFigure(measured.coverPercent, 1)} %</strong> covered
                {measured.areaCm2 !== null && `, ${formatFigure(measured.areaCm2, 0)} cm²`}
                {measured.darkGreenColourIndex !== null &&
                  ` · dark green colour index ${formatFigure(measured.darkGreenColourIndex, 2)}`}
                {measured.palePercent !== null && ` · ${formatFigure(measured.palePercent, 0)} % of it pale`}{' '}
                · {formatFigure(measured.brownPercent, 0)} % brown: dead leaves or bare soil
              </p>
            )}
          </div>
          {measured && (
            <>
              <div className="inline-row" style={{ marginTop: '0.6rem' }}>
                <span className="small">Threshold</span>
                <Slider
                  min={-0.1}
                  max={0.8}
                  step={0.005}
                  value={measured.threshold}
                  onChange={(_, v) => setMeasured({ ...measured, threshold: v })}
                  onChangeCommitted={(_, v) => void measure(v as number)}
                  aria-label="Threshold of excess green"
                  sx={{ flex: 1, mx: 2 }}
                />
                <span className="num small">{formatFigure(measured.threshold, 3)}</span>
              </div>
              <p className="small quiet">{ruleWords[measured.rule]}</p>
            </>
          )}
          <div className="inline-row">
            <Button
              size="small"
              variant={tool === 'outline' ? 'contained' : 'outlined'}
              color="secondary"
              onClick={() => {
                setTool(tool === 'outline' ? 'look' : 'outline');
                if (tool !== 'outline') setRegion([]);
              }}
            >
              {tool === 'outline' ? `Outline: ${region.length} corners` : 'Outline the unit'}
            </Button>
            <Button
              size="small"
              variant={tool === 'scale' ? 'contained' : 'outlined'}
              color="secondary"
              onClick={() => setTool(tool === 'scale' ? 'look' : 'scale')}
            >
              {tool === 'scale' ? `Length: ${scale.length} of 2 points` : 'Mark a length'}
            </Button>
            <TypedField
              label="It is"
              of={knownLength}
              value={cm}
              onType={setCm}
              placeholder="27 cm"
              sx={{ width: 130 }}
            />
            {drawn && (
              <Button size="small" onClick={() => keepSpot(null)}>
                Keep for all units
              </Button>
            )}
            {drawn && photo.unitId && (
              <Button size="small" onClick={() => keepSpot(photo.unitId)}>
                Keep for {code}
              </Button>
            )}
            <Button
              size="small"
              variant={tool === 'grey' ? 'contained' : 'outlined'}
              color="secondary"
              onClick={() => setTool(tool === 'grey' ? 'look' : 'grey')}
            >
              {tool === 'grey' ? 'Tap the grey card' : photo.gains ? 'Balance again' : 'Grey card'}
            </Button>
            {earlier.length > 0 && (
              <Button
                size="small"
                variant={tool === 'wipe' ? 'contained' : 'outlined'}
                color="secondary"
                onClick={() => setTool(tool === 'wipe' ? 'look' : 'wipe')}
              >
                Before and after
              </Button>
            )}
          </div>
          {tool === 'wipe' && (
            <div className="inline-row" style={{ marginTop: '0.6rem' }}>
              <PickOne
                label="Before"
                value={before}
                options={earlier.map((p) => [p.entryId, `day ${p.day}`] as const)}
                onPick={setBefore}
                sx={{ width: 120 }}
              />
              <Slider
                value={wipe}
                onChange={(_, v) => setWipe(v)}
                aria-label="Wipe"
                sx={{ flex: 1, mx: 2 }}
              />
            </div>
          )}
        </div>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" sx={{ marginRight: 'auto' }} onClick={remove}>
          Remove the photo
        </Button>
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
        {measured && (
          <Button variant="contained" onClick={() => void keep()}>
            Keep {formatFigure(measured.coverPercent, 1)} %
          </Button>
        )}
      </DialogActions>
    </EntryDialog>
  );
}

const ruleWords: Record<Measured['rule'], string> = {
  otsu: 'Plant is what lies above Otsu’s threshold of excess green (Woebbecke et al. 1995; Otsu 1979).',
  mostlyGround:
    'Nearly bare: Otsu would split the ground’s own noise, so plants begin where they are likelier than it.',
  mostlyPlant: 'Nearly full: Otsu would split the plants, so ground begins well below them.',
  byHand: 'The threshold is set by hand; the log says so.',
};
