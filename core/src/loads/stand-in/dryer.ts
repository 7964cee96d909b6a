/*
 * A vented dryer that draws power, for checks of what reads its watts: not the drum model of the instruments, but one
 * with its own step, a heater and a box apart, a leak past the heater, heat lost through the cabinet, and a cloth that
 * is wet until it is not.
 */

/** What of a made-up dryer nobody sees from outside. */
export interface HiddenDryer {
  /** m³/s at the hood. */
  flow: number;
  /** W. */
  heater: number;
  motor: number;
  /** °C of the room; °C at which the limit thermostat opens, and how far below it closes, K. */
  room: number;
  limit: number;
  hysteresis: number;
  /** Share of the air that comes in past the heater, 0 to 1. */
  leak: number;
  /** W/K through the cabinet. */
  loss: number;
  /** J/K of the heater's box. */
  box: number;
  /** How far the air is cooled to the cloth's temperature, 0 to 1. */
  reach: number;
  /** kg of water in the load. */
  water: number;
}

/** J/(kg K) of air, and J/kg to evaporate. ASHRAE Handbook, Fundamentals, chapter 1. */
const AIR = 1006;
const EVAPORATION = 2_430_000;
/** J/K of cloth and drum. */
const LOAD = 18_000;
const STEP = 0.5;
const LONGEST = 4 * 3600;
/** kg of water that is left where it is dry; below so much it evaporates ever slower. */
const DRY = 0.08;
const FALLING = 0.6;
const EXHAUST_OPENS = 66;

/**
 * Watts of a load, each second, from the heater's start until it is dry and has cooled down.
 * @param dryer as it is
 */
export function dryerWatts(dryer: HiddenDryer): number[] {
  const { flow, heater, motor, room, limit, hysteresis, leak, loss, box, reach } = dryer;
  const watts: number[] = [];
  let [boxAt, cloth, water, exhaust] = [room, room, dryer.water, room];
  let [cut, warm] = [false, false];
  for (let t = 0; t < LONGEST && water > DRY; t += STEP) {
    if (boxAt >= limit) cut = true;
    else if (boxAt <= limit - hysteresis) cut = false;
    if (exhaust >= EXHAUST_OPENS) warm = true;
    else if (exhaust <= EXHAUST_OPENS - 8) warm = false;
    const power = cut || warm ? 0 : heater;
    // Dry air by the ideal gas at the hood; some of it comes in behind the heater.
    const air = (flow * 352) / (273 + exhaust);
    const heated = air * (1 - leak);
    boxAt += ((power - heated * AIR * (boxAt - room)) * STEP) / box;
    const inlet = room + (1 - leak) * (boxAt - room);
    exhaust = inlet - reach * (inlet - cloth);
    const given = air * AIR * (inlet - exhaust) - loss * (cloth - room);
    // Wet cloth gives what its warmth allows, over a room of middling air; less and less as it dries.
    const pull = 0.0095 * Math.exp(0.055 * (cloth - 20)) - 0.0075;
    const rate = air * reach * Math.max(0, pull) * Math.min(1, water / FALLING);
    water -= rate * STEP;
    cloth += ((given - rate * EVAPORATION) * STEP) / LOAD;
    if (Number.isInteger(t)) watts.push(power + motor);
  }
  for (let t = 0; t < 360; t++) watts.push(motor);
  return watts;
}
