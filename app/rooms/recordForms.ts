import type { ReviewText } from '~core/log/trial';
import type { Plan } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { productRecord } from '../library/productForm';
import { contendersRecord } from './contenders/contendersForm';
import { areasRecord, readingsRecord, rotationRecord, sizesRecord } from './layout/layoutRecords';
import { setUpRecord } from './mixing/setUpForm';
import { questionRecord } from './question/questionForm';
import { ownRecord, reviewRecord } from './review/reviewRecords';
import { verdictRecords } from './verdict/verdictRecords';
import type { RecordForm } from '../form/recordForm';

type Forms<R> = readonly RecordForm<R>[];

/** Every form that shows a record and saves it: a new one is a line here, and is tried with two tabs by that alone. */
export const recordForms = {
  plan: [
    questionRecord,
    contendersRecord,
    areasRecord,
    sizesRecord,
    readingsRecord,
    rotationRecord,
    setUpRecord,
  ] as unknown as Forms<Plan>,
  review: [reviewRecord, ownRecord, ...verdictRecords] as unknown as Forms<ReviewText>,
  product: [productRecord] as unknown as Forms<Product>,
};
