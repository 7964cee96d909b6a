import type { SetUp } from '../catalogue.js';

const DRYER = ['vented-dryer', 'condenser-dryer', 'heat-pump-dryer'] as const;
const WASHER = ['front-load-washer', 'top-load-washer'] as const;

/** What several tasks need done first; done once in a visit and undone at its end. */
export const SETUPS: readonly SetUp[] = [
  {
    id: 'cold',
    name: 'Cooled down',
    order: 1,
    back: 7,
    minutes: 1,
    fetch: [],
    steps: [
      {
        id: 'cool',
        do: 'Check that the drum and the door are cool. If it ran within the hour, give it time.',
        why: 'Hot metal burns, hot water scalds, and a warm condenser drips.',
        look: 'Hand on the glass or in the drum: lukewarm at most.',
        hazards: ['scald'],
        when: { kinds: [...WASHER] },
        timer: { minutes: 30, label: 'Cooling', optional: true },
      },
      {
        id: 'cool-dryer',
        do: 'Check that the drum is cool. If it ran within the hour, give it time.',
        why: 'Metal round the heater holds its heat after the drum has stopped.',
        look: 'Hand in the drum: no more than lukewarm.',
        hazards: ['hot-dryer'],
        when: { kinds: [...DRYER] },
        timer: { minutes: 30, label: 'Cooling', optional: true },
      },
    ],
    undo: [],
  },
  {
    id: 'unplugged',
    name: 'Unplugged',
    order: 2,
    back: 6,
    minutes: 1,
    fetch: [],
    steps: [
      {
        id: 'unplug',
        do: 'Switch the machine off and pull its plug.',
        why: 'Your hands go where a motor, a pump or a heater can start.',
        look: 'The display stays dark when you press the power button.',
        hazards: ['electric'],
      },
    ],
    undo: [
      {
        id: 'plug-in',
        do: 'Dry your hands and plug the machine in again.',
        why: 'It is easily forgotten, and the next person thinks the machine is broken.',
        look: 'The display lights when you switch it on. The socket and the plug are dry.',
      },
    ],
  },
  {
    id: 'gas-off',
    name: 'Gas valve shut',
    order: 3,
    back: 3,
    minutes: 1,
    fetch: [],
    steps: [
      {
        id: 'gas-shut',
        do: 'Shut the gas valve behind the dryer: the lever across the pipe.',
        why: 'The burner must not start while the duct is off.',
        hazards: ['gas'],
        when: { energy: ['gas'] },
      },
      {
        id: 'gas-which',
        do: 'Find out whether this dryer burns gas before you move it.',
        why: 'With gas, an open duct lets carbon monoxide into the room.',
        look: 'A second pipe with a valve at the back means gas. Shut it, or leave this to a professional.',
        hazards: ['gas-unsure'],
        when: { energy: ['unknown'] },
      },
    ],
    undo: [
      {
        id: 'gas-open',
        do: 'With the duct closed and tight, open the gas valve again: the lever along the pipe.',
        why: 'The duct must be whole before the burner may run.',
        look: 'No smell of gas. If there is: valve shut, no switches, out, and call from outside.',
        hazards: ['gas'],
        when: { energy: ['gas'] },
      },
    ],
  },
  {
    id: 'water-off',
    name: 'Water off',
    order: 3,
    back: 3,
    minutes: 1,
    fetch: [],
    steps: [
      {
        id: 'tap-off',
        do: 'Shut the tap of the fill hose.',
        why: 'A hose strained or loosened while it is under pressure comes off.',
        look: 'A quarter turn, or clockwise until it stops. If the tap does not hold, use the stop valve of the house.',
        hazards: ['water-pressure'],
      },
    ],
    undo: [
      {
        id: 'tap-on',
        do: 'Open the tap again and look at both ends of the hose.',
        why: 'Without water the next wash stops with a fault; a joint that was moved may drip. Look now, while you can still reach it.',
        look: 'Wipe round the joints with dry paper: it stays dry.',
      },
    ],
  },
  {
    id: 'pulled-out',
    name: 'Pulled out',
    order: 4,
    back: 5,
    minutes: 5,
    fetch: ['A helper, if it is heavy', 'A torch'],
    steps: [
      {
        id: 'pull-out',
        do: 'Pull the machine out, a little on each side in turn, until you can reach behind it.',
        why: 'What has to come off is at the back.',
        look: 'Cable, hoses and duct follow freely.',
        hazards: ['moving'],
        when: { stacked: ['no', 'unknown'] },
      },
      {
        id: 'pull-out-stack',
        do: 'Move the stack only with a second person, or reach the back from the side.',
        why: 'A stack is top-heavy.',
        look: 'The fixing between the two machines is tight before anything moves.',
        hazards: ['stacked'],
        when: { stacked: ['above', 'below'] },
      },
    ],
    undo: [
      {
        id: 'push-back',
        do: 'Push the machine back slowly, looking behind it all the way.',
        why: 'This is where hoses get kinked and ducts get crushed.',
        look: 'No kink, no crush, the cable free, a hand’s width left behind a vented dryer.',
        hazards: ['moving'],
      },
      {
        id: 'stands-level',
        do: 'Press the top at each corner. If it rocks, turn the foot until it does not, and tighten the locknut.',
        why: 'A machine that rocks walks.',
      },
    ],
  },
  {
    id: 'flap-open',
    name: 'Flap open, tray and towels down',
    order: 5,
    back: 2,
    minutes: 2,
    fetch: ['Two old towels', 'A shallow tray'],
    steps: [
      {
        id: 'flap-left',
        do: 'Open the flap at the bottom left of the front. Towel on the floor, tray on the towel.',
        why: 'A litre or so of water always comes.',
        when: { filterAccess: ['front-left'] },
      },
      {
        id: 'flap-right',
        do: 'Open the flap at the bottom right of the front. Towel on the floor, tray on the towel.',
        why: 'A litre or so of water always comes.',
        when: { filterAccess: ['front-right'] },
      },
      {
        id: 'flap-unknown',
        do: 'Find the flap at the bottom of the front, left or right; it opens with a coin or a press. Towel on the floor, tray on the towel.',
        why: 'A litre or so of water always comes.',
        look: 'No flap: your manual says whether the filter is reached from behind or by taking the lower front off. Then stop here and enter it under the machine.',
        when: { filterAccess: ['unknown'] },
      },
      {
        id: 'panel-behind',
        do: 'Unscrew the rear panel: about a dozen screws round the edge and often one in the middle. Towel and tray under the pump.',
        why: 'On this machine the filter is reached from behind.',
        look: 'Keep the screws in a cup. Sheet metal is sharp: wear gloves.',
        when: { filterAccess: ['behind'] },
      },
    ],
    undo: [
      {
        id: 'panel-back',
        do: 'Put the rear panel back with all its screws.',
        why: 'The panel stiffens the machine and keeps hands from the belt.',
        look: 'No screw left in the cup.',
        when: { filterAccess: ['behind'] },
      },
    ],
  },
  {
    id: 'outdoors',
    name: 'At the hood outdoors',
    order: 6,
    back: 1,
    minutes: 4,
    fetch: ['Steps or a ladder, if the hood is high'],
    steps: [
      {
        id: 'find-hood',
        do: 'Go outside and find the hood. See that you can stand safely below it.',
        why: 'Half of what blocks a duct sits at its very end.',
        hazards: ['ladder'],
      },
    ],
    undo: [],
  },
  {
    id: 'drawer-out',
    name: 'Dispenser drawer out',
    order: 7,
    back: 0,
    minutes: 2,
    fetch: ['Two cloths'],
    steps: [
      {
        id: 'draw-out',
        do: 'Press the release at the back of the drawer and draw it out.',
        why: 'The worst is behind and above it, and the drawer cleans best in a sink.',
        look: 'The release is often on the softener cover. Do not pull against it.',
        when: { dispenser: ['drawer', 'unknown'] },
      },
      {
        id: 'stuff-hole',
        do: 'Stuff a cloth into the hole that leads to the tub.',
        why: 'What you loosen above must not fall into the machine.',
        when: { dispenser: ['drawer', 'unknown'] },
      },
    ],
    undo: [
      {
        id: 'cloth-out',
        do: 'Take the cloth out of the hole.',
        why: 'Left in, no water gets to the wash.',
        when: { dispenser: ['drawer', 'unknown'] },
      },
      {
        id: 'drawer-in',
        do: 'Dry the parts, put the inserts in, and slide the drawer home until it clicks.',
        why: 'A drawer that is not home drips down the front.',
        look: 'Softener cover and siphon are pressed down.',
        when: { dispenser: ['drawer', 'unknown'] },
      },
      {
        id: 'ajar',
        do: 'Leave the drawer a finger open.',
        why: 'Air is what keeps mould away.',
        when: { dispenser: ['drawer', 'unknown'] },
      },
    ],
  },
  {
    id: 'vent-open',
    name: 'Transition hose off',
    order: 7,
    back: 0,
    minutes: 3,
    fetch: ['A screwdriver for the hose clamps', 'Work gloves'],
    steps: [
      {
        id: 'hose-off',
        do: 'Loosen the clamp and take the transition hose off the wall and off the dryer.',
        why: 'The hose is cleaned apart, and the duct is reached through the wall.',
        look: 'Edges of sheet metal are sharp: gloves on.',
        hazards: ['gas', 'sharp-metal'],
        when: { energy: ['gas', 'unknown'] },
      },
      {
        id: 'hose-off-electric',
        do: 'Loosen the clamp and take the transition hose off the wall and off the dryer.',
        why: 'The hose is cleaned apart, and the duct is reached through the wall.',
        look: 'Edges of sheet metal are sharp: gloves on.',
        hazards: ['sharp-metal'],
        when: { energy: ['electric'] },
      },
    ],
    undo: [
      {
        id: 'hose-on',
        do: 'Put the hose back on both ends, as short and straight as it goes, and tighten the clamps.',
        why: 'Short and straight is half of good drying, and the dryer must never blow into the room.',
        look: 'Joints clamped or taped with metal tape. No screws: their points catch lint.',
        hazards: ['duct-material', 'never-indoors'],
      },
    ],
  },
];
