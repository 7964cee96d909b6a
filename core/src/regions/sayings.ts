/** A sentence that is another one elsewhere, because the law or what is built in is. */
export interface RegionSaying {
  /** As the texts have it, to the letter. */
  eu: string;
  uk?: string;
  us?: string;
  source: string;
}

/** Each stands in the texts as it does here: a test sees to it. */
export const REGION_SAYINGS: readonly RegionSaying[] = [
  {
    eu: 'Anything on the gas line itself is work for a licensed gas fitter.',
    uk: 'By law anything on the gas line is work for a registered gas engineer.',
    us: 'Anything on the gas line itself is work for a licensed gas fitter or your gas utility.',
    source: 'Gas Safety (Installation and Use) Regulations 1998, regulation 3 (UK, from memory)',
  },
  {
    eu: 'Vinyl or plastic duct burns. Some dryers are still supplied with one: metal is safer, change it.',
    us: 'Vinyl or plastic duct must not stay on a dryer: it burns, and US and Canadian codes forbid it.',
    source: 'IRC M1502.4 and M1502.5 (metal ducts), from memory; common practice elsewhere',
  },
  {
    eu: 'A hose out of a window, or a window kit: short, straight, and nobody’s open window beside it.',
    us: 'A duct never ends in a window.',
    source: 'IRC M1502.3 (3 ft from openings), from memory; common practice elsewhere',
  },
  {
    eu: 'It needs nobody; you can leave the room but not the house.',
    us: 'It fills hot: run the hot tap at the sink first until it runs hot. It needs nobody; you can leave the room but not the house.',
    source:
      'Common practice: machines there are filled from the hot line, whose first litres are cold',
  },
  {
    eu: 'Hook it up to 60 to 90 cm (24 to 36 in), or as your manual says.',
    uk: 'Hook it up to 60 to 100 cm (24 to 39 in), or as your manual says.',
    source: 'Common practice: hose tops of 100 cm are usual over wall traps',
  },
  {
    eu: 'Draw the hose out of the standpipe, or off its spigot, and lower it into the bucket.',
    uk: 'Draw the hose out of the standpipe, or off the wall trap’s spigot, and lower it into the bucket.',
    source: 'Common practice: a clamped spigot on a wall trap is usual and no fault',
  },
  {
    eu: 'Never taped in or sealed, never to the bottom.',
    uk: 'Never taped into a standpipe or sealed, never to the bottom; a spigot is clamped.',
    source: 'Common practice',
  },
  {
    eu: 'The loop hangs 60 to 90 cm (24 to 36 in) above the floor.',
    uk: 'The loop hangs 60 to 100 cm (24 to 39 in) above the floor.',
    source: 'Common practice',
  },
  {
    eu: 'A 113 litre (30 gal) bag fills in two and a half to five seconds on a clear run, with a strong heater in half of that.',
    us: 'A 30 gallon bag fills in one to two and a half seconds on a clear run.',
    source: 'Common practice: 100 to 200 ft³/min with a 5.4 kW heater, less with a weaker one',
  },
  {
    eu: 'The manual’s table counts; where it says nothing, 2 to 4 m (7 to 13 ft).',
    us: 'The manual’s table counts; where it says nothing, 35 ft (10.7 m) less the bends.',
    source: 'IRC M1502.4.6.1 (US, from memory); makers elsewhere allow 2 to 4 m (common practice)',
  },
];
