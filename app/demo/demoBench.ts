import dayjs from 'dayjs';
import type { Product } from '~core/model/product';
import type { Trial } from '~core/log/trial';
import { blind } from './blindTrial';
import { demoProducts } from './demoProducts';
import { finished } from './finishedTrial';
import { inconclusive } from './inconclusiveTrial';
import { planned } from './plannedTrial';
import { running } from './runningTrial';

/**
 * The demo bench: the made-up Loggia bench with trials in different states. Everything comes from seeds;
 * dates count from the day it is made.
 */
export function demoBench(now: Date): { products: Product[]; trials: Trial[] } {
  const day = (offset: number) => dayjs(now).add(offset, 'day').format('YYYY-MM-DD');
  return {
    products: demoProducts,
    trials: [finished(day), running(day), blind(day), inconclusive(day), planned(day)],
  };
}
