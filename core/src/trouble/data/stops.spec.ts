import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { STOP_RULES } from './stops.js';

const rule = (id: string) => STOP_RULES.find((one) => one.id === id)!;
const all = (id: string) => `${rule(id).now} ${rule(id).call}`;

describe('the stop rules', () => {
  it.each(['smoke', 'carbon-monoxide', 'gas-smell', 'fumes', 'shock', 'water-socket'])(
    'hold %s for every kind of machine',
    (id) => expect([...rule(id).kinds].sort()).toEqual([...MACHINE_KINDS].sort()),
  );

  it('get people out before anything is switched', () => {
    for (const id of ['smoke', 'carbon-monoxide', 'fumes'])
      expect(rule(id).now.search(/out|Out/), id).toBeLessThan(
        (rule(id).now + ' plug').search(/plug|breaker|window|power/),
      );
  });

  // IEC 60335-2-11, instructions (from memory): never stopped before the end, unless all is taken out and spread.
  it.each(['scorched', 'hurts-hot'])(
    'keep the door shut over smoke, and else empty the drum at once: %s',
    (id) => {
      expect(rule(id).now).toMatch(/Smoke.*glow.*keep the door shut.*fire service/);
      expect(rule(id).now).toMatch(/take everything out at once, spread it outdoors/);
    },
  );

  it.each(['water-socket', 'flooding'])(
    'send nobody through the water to a switch, and say what to do where the panel is wet: %s',
    (id) => {
      expect(rule(id).now).toMatch(/^Do not step into the water/);
      expect(rule(id).now).toMatch(/only where you can reach the breaker dry.*then shut/);
      expect(rule(id).now).toMatch(/stop valve of the house/);
      expect(rule(id).call).toMatch(/out of dry reach: call/);
    },
  );

  it('leave the one who hangs on it alone until the power is off', () => {
    expect(rule('shock').now).toMatch(/do not touch them.*breaker/);
    expect(rule('shock').call).toMatch(/faint.*burn.*racing heart.*pregnant.*emergency number/);
  });

  it('call from outside, and know that harm comes late', () => {
    for (const id of ['smoke', 'carbon-monoxide', 'gas-smell'])
      expect(all(id), id).toMatch(/from outside/);
    expect(rule('fumes').call).toMatch(/poison centre all the same; harm can come hours later/);
  });
});
