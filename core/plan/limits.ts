/** Limits that rooms, audit and sentences share. All are common practice unless a source is named. */

/** Treatments' mean start sizes may differ by this much, per cent of the smallest. */
export const START_SIZE_LIMIT_PERCENT = 10;

/** Treatments' means of the gradient (light, most often) may differ by this much, per cent. */
export const GRADIENT_LIMIT_PERCENT = 5;

/** Residual degrees of freedom below which the spread itself is a guess (EPPO PP 1/152, from memory). */
export const ENOUGH_RESIDUAL_DF = 12;
