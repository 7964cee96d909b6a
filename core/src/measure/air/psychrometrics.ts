import psychrolib from 'psychrolib';
import { ATMOSPHERE } from './properties.js';

/* Moist air by the ASHRAE formulas, through PsychroLib. */
psychrolib.SetUnitSystem(psychrolib.SI);

/** kg of water a kg of dry air. @param celsius -50 to 150 @param humidity 0 to 1 */
export const humidityRatio = (celsius: number, humidity: number): number =>
  psychrolib.GetHumRatioFromRelHum(celsius, humidity, ATMOSPHERE);

/** m³ a kg of dry air. */
export const moistVolume = (celsius: number, ratio: number): number =>
  psychrolib.GetMoistAirVolume(celsius, ratio, ATMOSPHERE);

/** Pa of water vapour over water. */
export const saturation = (celsius: number): number => psychrolib.GetSatVapPres(celsius);
