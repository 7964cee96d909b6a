import { spoken } from '../../regions/spoken.js';
import type { NoLight } from './light.js';
import type { NothingHeard } from './sound.js';
import type { NoSpin } from './spin.js';

/** Why a recording of a spin tells nothing, and what to do. */
export const NO_SPIN: Readonly<Record<NoSpin, string>> = spoken({
  'too short':
    'Four seconds in one go are the least: leave the phone where it lies until the spin is steady.',
  'too slow':
    'This device tells what it feels fewer than 20 times a second: too seldom for a spin. The seconds and the eye stay.',
  still:
    'It felt nothing at all: the machine stands, or the sensor sends only noughts. Begin it with the spin.',
  fell: 'It felt a blow that no machine gives: the phone fell, or was knocked. Nothing of it was taken. Lay it on a cloth, away from the edge.',
});

/** Why a sound tells nothing, and what to do. */
export const NOTHING_HEARD: Readonly<Record<NothingHeard, string>> = spoken({
  'too short': 'Two seconds are the least: it was ended, or taken away, before.',
  silent: 'Nothing was heard: the microphone is shut, or covered.',
  'too loud':
    'It is louder than the microphone can tell. Lay the phone further off, and keep to that place.',
});

/** Why a picture tells nothing, and what to do. */
export const NO_LIGHT: Readonly<Record<NoLight, string>> = spoken({
  corners:
    'The four corners cross, or one lies outside the picture. Put each on its own corner of the mesh, in turn round it.',
  'too small': 'The screen is too small in the picture. Go nearer, with bare lamp all round it.',
  dark: 'Round the screen it is dark: hold it before a bright window or a lamp, with bare light all round.',
  'burnt out':
    'The lamp is too bright for the picture: what is brightest is lost. Touch the lamp on the camera’s screen, or go before a window.',
  black:
    'No light passes at all: this is no mesh, or it is wholly shut. Clean it, and take it once more.',
  uneven:
    'Round the screen there is not enough bare, even light: something else stands in the picture, or a lamp that is small. A bright window, or a white screen, is better.',
});

/** What a spin that shakes more than its own can come of: it tells none of them by itself. */
export const SHAKES_OF = spoken([
  'This load: spread it, or take some out, and spin again. If that settles it, it was the load.',
  'Off level, or a loose foot: measure the level, press two opposite corners.',
  'Still so with several loads, on level feet, and more from year to year: feet or suspension that wear. A technician tells.',
]);

/** What a water film and lint do to light and to water, as two different faults. */
export const FILM_OR_LINT = spoken({
  film: 'Light passes, water stands: a film of softener in the mesh. Hot water, soap and a soft brush take it off.',
  lint: 'Water runs through, light does not: lint or hair in the mesh. Brush it out from both sides.',
  both: 'Neither light nor water pass: lint and a film. Brush it, then wash it with hot water and soap.',
  open: 'Light and water pass: the screen is open.',
});
