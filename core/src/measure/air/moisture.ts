/*
 * Moisture of cloth: kg of water a kg of bone-dry cloth, as remaining moisture after a spin is told. Cloth
 * that lies in a room is not bone-dry: at 50 % humidity cotton holds some 6 to 7 % (sorption curves of
 * cotton, from memory). What is weighed "dry" is room-dry, and is corrected.
 */

/** Moisture of cloth that is dry to the hand. */
export const ROOM_DRY = 0.065;
/** Up to here a load is dry enough to be put away. Judgement. */
export const DRY_ENOUGH = 0.1;

/** kg of bone-dry cloth in what weighs so much room-dry. */
export const boneDry = (roomDry: number): number => roomDry / (1 + ROOM_DRY);
