/** How often lamps of a code may flash before a pause; 0: they stay on. */
export const FLASHING = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const;
