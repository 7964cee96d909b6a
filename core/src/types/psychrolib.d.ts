/** The part of PsychroLib that is used here (ASHRAE Handbook, Fundamentals 2017, chapter 1). */
declare module 'psychrolib' {
  interface PsychroLib {
    readonly SI: number;
    SetUnitSystem(system: number): void;
    /** @returns Pa @param tDryBulb °C, -100 to 200 */
    GetSatVapPres(tDryBulb: number): number;
    /** @returns kg/kg @param relHum 0 to 1 @param pressure Pa */
    GetHumRatioFromRelHum(tDryBulb: number, relHum: number, pressure: number): number;
    /** @returns 0 to 1 */
    GetRelHumFromHumRatio(tDryBulb: number, humRatio: number, pressure: number): number;
    /** @returns m³ per kg of dry air */
    GetMoistAirVolume(tDryBulb: number, humRatio: number, pressure: number): number;
  }
  const psychrolib: PsychroLib;
  export default psychrolib;
}
