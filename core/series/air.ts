/**
 * Saturation vapour pressure, kPa: FAO Irrigation and Drainage Paper 56, equation 11.
 * @param t °C
 * @example saturationVapourPressure(24.5) // 3.0746…
 */
export const saturationVapourPressure = (t: number): number => 0.6108 * Math.exp((17.27 * t) / (t + 237.3));

/**
 * Vapour-pressure deficit of the air, kPa (FAO 56).
 * @param t °C
 * @param humidity relative, per cent
 * @example vapourPressureDeficit(25, 50) // 1.584…
 */
export const vapourPressureDeficit = (t: number, humidity: number): number =>
  saturationVapourPressure(t) * (1 - humidity / 100);
