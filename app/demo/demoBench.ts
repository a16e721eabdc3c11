import dayjs from 'dayjs';
import type { PanelKey } from '~core/model/panel';
import type { Product } from '~core/model/product';
import type { Trial } from '~core/log/trial';
import { blind } from './blindTrial';
import type { DemoSeries } from './demoAir';
import type { DemoPhoto } from './demoPhotos';
import { demoProducts } from './demoProducts';
import { earlier } from './earlierTrials';
import { finished } from './finishedTrial';
import { inconclusive } from './inconclusiveTrial';
import { picking } from './pickTrial';
import { planned } from './plannedTrial';
import { running } from './runningTrial';

/**
 * The demo bench: the made-up Loggia bench with trials in different states. Everything comes from seeds;
 * dates count from the day it is made.
 */
export function demoBench(now: Date): {
  products: Product[];
  trials: Trial[];
  /** readings of loggers, by trial */
  series: { trialId: string; series: DemoSeries }[];
  /** pictures, by trial */
  photos: { trialId: string; photo: DemoPhoto }[];
  /** what is in the cups of tastings, by trial */
  panelKeys: { trialId: string; key: PanelKey }[];
} {
  const day = (offset: number) => dayjs(now).add(offset, 'day').format('YYYY-MM-DD');
  const run = running(day);
  const done = finished(day);
  return {
    products: demoProducts,
    trials: [
      done.trial,
      run.trial,
      blind(day),
      inconclusive(day),
      picking(day),
      planned(day),
      ...earlier(day),
    ],
    series: run.series.map((series) => ({ trialId: run.trial.plan.id, series })),
    photos: run.photos.map((photo) => ({ trialId: run.trial.plan.id, photo })),
    panelKeys: [
      { trialId: done.trial.plan.id, key: done.panelKey },
      { trialId: run.trial.plan.id, key: run.panelKey },
    ],
  };
}
