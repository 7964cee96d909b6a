/*
 * Air as an ideal gas with Sutherland's viscosity (constants for air: 1.716e-5 Pa·s at 273.15 K, 110.4 K;
 * White, "Viscous Fluid Flow", from memory).
 */

const GAS_CONSTANT = 287.055;
const ZERO_C = 273.15;
/** Pa, at sea level. */
export const ATMOSPHERE = 101_325;

/** Pa of the standard atmosphere. @param metres over the sea, 0 to 5000 @source ISO 2533 */
export const atmosphereAt = (metres: number): number =>
  ATMOSPHERE * (1 - 2.25577e-5 * metres) ** 5.25588;

/** kg/m³ of dry air. @param celsius -50 to 200 @param pressure Pa */
export const airDensity = (celsius: number, pressure = ATMOSPHERE): number =>
  pressure / (GAS_CONSTANT * (celsius + ZERO_C));

/** Pa·s. @param celsius -50 to 200 */
export function airViscosity(celsius: number): number {
  const kelvin = celsius + ZERO_C;
  return (1.716e-5 * (kelvin / ZERO_C) ** 1.5 * (ZERO_C + 110.4)) / (kelvin + 110.4);
}
