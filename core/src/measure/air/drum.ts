import { MeasureProblem } from '../input/fields.js';
import { ATMOSPHERE } from './properties.js';
import { humidityRatio, moistVolume, saturation } from './psychrometrics.js';

/*
 * A load in the drum, lumped: one temperature and one moisture of the cloth, one temperature of the
 * heater's box. It shows why a restriction does little until the limit thermostat cuts in, and then a
 * lot. Figures that are no physics are judgement and can be given.
 *
 * ```
 *   room air -> [ heater box ] -> [ cloth: 0.85 of the way to its own vapour ] -> blower, hood
 *                limit 135 °C                                       thermostat at the exhaust
 * ```
 */

export interface DrumLoad {
  /** kg of dry cloth. */
  dry: number;
  /** kg of water a kg of dry cloth, at the start and where it is dry enough. */
  moisture: number;
  target: number;
  /** m³/s of air at the hood. */
  flow: number;
  /** W of the heater. */
  heater: number;
  /** °C and 0 to 1. */
  room: number;
  humidity: number;
  /** °C at the exhaust at which the thermostat opens. */
  thermostat?: number;
}

export interface DrumMoment {
  /** Minutes. */
  at: number;
  /** °C. */
  cloth: number;
  inlet: number;
  exhaust: number;
  /** kg/kg. */
  moisture: number;
  /** Share of the last stretch that the heater was on, 0 to 1. */
  heating: number;
}

export interface DrumResult {
  minutes: number;
  /** It was dry within the longest time. */
  dried: boolean;
  /** kWh of the heater and of the motor. */
  heat: number;
  motor: number;
  energy: number;
  /** kg of water taken out. */
  water: number;
  /** How often the limit thermostat cut the heat, and the share of the time that it held it off. */
  limitCuts: number;
  limitShare: number;
  moments: DrumMoment[];
  /** For the balance: J and kg, what came in against what is there and went out. */
  balance: { heatIn: number; heatOut: number; heatStored: number; waterOut: number };
}

/**
 * J/(kg K): cloth (cotton; textile handbooks, from memory), water, air, vapour; J/kg to turn water at
 * 0 °C to vapour (ASHRAE Handbook, Fundamentals, chapter 1).
 */
const CLOTH = 1340;
const WATER = 4186;
const AIR = 1006;
const VAPOUR = 1860;
const EVAPORATION = 2_501_000;
/** How near the air comes to the cloth's own vapour and temperature. Judgement. */
const EFFECTIVENESS = 0.85;
/** J/K of the drum's metal, and of the heater's box; W/K through the cabinet. Judgement. */
const DRUM = 9000;
const BOX = 2500;
const THROUGH_CABINET = 9;
/** W of motor and fan. Common practice. */
const MOTOR = 220;
/** °C: the limit thermostat at the heater opens, and closes again; the same at the exhaust. Common practice. */
const LIMIT = 135;
const LIMIT_CLOSES = 115;
const THERMOSTAT = 68;
const THERMOSTAT_CLOSES = 6;
const STEP = 1;
const LONGEST = 5 * 3600;
/** Seconds between two moments that are told. */
const TOLD = 30;

/** Water activity of cotton by its moisture, 0 to 1: a fit to sorption curves of cotton, from memory. */
export const activity = (moisture: number): number =>
  1 - Math.exp(-((Math.max(0, moisture) / 0.09) ** 1.2));

/** @throws MeasureProblem for a load that cannot be dried so */
export function dryLoad(load: DrumLoad): DrumResult {
  const problems = wrongIn(load);
  if (problems.length) throw new MeasureProblem(problems);
  const { dry, target, flow, heater, room, humidity, thermostat = THERMOSTAT } = load;
  const roomRatio = humidityRatio(room, humidity);
  const roomEnthalpy = enthalpy(room, roomRatio);
  let moisture = load.moisture;
  let cloth = room;
  let box = room;
  let exhaust = room;
  let [limitOpen, thermostatOpen] = [false, false];
  let [heat, out, lost, waterOut] = [0, 0, 0, 0];
  let [limitCuts, limitSeconds, onSince] = [0, 0, 0];
  const moments: DrumMoment[] = [];
  const stored = () => (dry * (CLOTH + moisture * WATER) + DRUM) * cloth + BOX * box;
  const before = stored();
  let seconds = 0;
  for (; seconds < LONGEST && moisture > target; seconds += STEP) {
    if (box >= LIMIT && !limitOpen) {
      limitOpen = true;
      limitCuts++;
    } else if (limitOpen && box <= LIMIT_CLOSES) limitOpen = false;
    if (exhaust >= thermostat) thermostatOpen = true;
    else if (exhaust <= thermostat - THERMOSTAT_CLOSES) thermostatOpen = false;
    if (limitOpen) limitSeconds += STEP;
    const power = limitOpen || thermostatOpen ? 0 : heater;
    if (power > 0) onSince += STEP;

    // What leaves at the hood's volume flow is so many kg of dry air.
    const outRatio = mixed(roomRatio, cloth, moisture);
    const air = flow / moistVolume(exhaust, outRatio);
    // The box gives its heat to the air that passes; what it keeps is in its own temperature.
    const passed = air * (AIR + roomRatio * VAPOUR);
    const gone = 1 - Math.exp((-passed * STEP) / BOX);
    const steady = room + power / passed;
    const boxNext = steady + (box - steady) * (1 - gone);
    // Heat that the air took from the box in this step, J.
    const given = power * STEP - BOX * (boxNext - box);
    const inlet = room + given / (passed * STEP);
    box = boxNext;

    const leaving = inlet - EFFECTIVENESS * (inlet - cloth);
    const evaporated = Math.min(air * (outRatio - roomRatio) * STEP, dry * moisture * 0.5);
    const ratio = roomRatio + evaporated / (air * STEP);
    const outflow = air * enthalpy(leaving, ratio) * STEP;
    const inflow = air * roomEnthalpy * STEP + given;
    const cabinet = THROUGH_CABINET * (cloth - room) * STEP;
    const energy = (dry * (CLOTH + moisture * WATER) + DRUM) * cloth + inflow - outflow - cabinet;
    moisture -= evaporated / dry;
    cloth = energy / (dry * (CLOTH + moisture * WATER) + DRUM);
    exhaust = leaving;
    heat += power * STEP;
    out += outflow - air * roomEnthalpy * STEP;
    lost += cabinet;
    waterOut += evaporated;
    if ((seconds + STEP) % TOLD === 0) {
      moments.push({
        at: (seconds + STEP) / 60,
        cloth,
        inlet,
        exhaust,
        moisture,
        heating: onSince / TOLD,
      });
      onSince = 0;
    }
  }
  const kWh = (joules: number) => joules / 3.6e6;
  const motor = kWh(MOTOR * seconds);
  return {
    minutes: seconds / 60,
    dried: moisture <= target,
    heat: kWh(heat),
    motor,
    energy: kWh(heat) + motor,
    water: waterOut,
    limitCuts,
    limitShare: seconds ? limitSeconds / seconds : 0,
    moments,
    balance: { heatIn: heat, heatOut: out + lost, heatStored: stored() - before, waterOut },
  };
}

/** J a kg of dry air, over dry air and water at 0 °C. */
const enthalpy = (celsius: number, ratio: number): number =>
  AIR * celsius + ratio * (EVAPORATION + VAPOUR * celsius);

/** Humidity ratio of the air that leaves the cloth. */
function mixed(roomRatio: number, cloth: number, moisture: number): number {
  const vapour = Math.min(0.9 * ATMOSPHERE, activity(moisture) * saturation(Math.min(cloth, 150)));
  const atCloth = (0.621945 * vapour) / (ATMOSPHERE - vapour);
  return roomRatio + EFFECTIVENESS * Math.max(0, atCloth - roomRatio);
}

function wrongIn({ moisture, target }: DrumLoad) {
  return moisture <= target
    ? [{ field: 'target', message: 'It is as dry as that already: give less than it starts with.' }]
    : [];
}
