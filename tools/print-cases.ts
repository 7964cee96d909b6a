/*
 * npx tsx tools/print-cases.ts [COUNT]: cases drawn with a seed and played with the adviser, in the sentences
 * that a person reads, to be read through.
 */
import { randomLcg } from 'd3-random';
import { Diagnosis } from '../core/src/trouble/diagnosis/diagnosis.js';
import { drawTrouble } from '../core/src/trouble/diagnosis/simulate.js';
import { MACHINE_KINDS, type Answer } from '../core/src/model/vocabulary.js';
import { sayFinding } from '../core/src/trouble/diagnosis/diagnosis.js';
import { troubleView } from '../core/src/views/trouble.js';

const count = Number(process.argv[2] ?? 50);
const random = randomLcg(2026 / 10_000);
for (let n = 0; n < count; n++) {
  const kind = MACHINE_KINDS[n % MACHINE_KINDS.length]!;
  const situation = { kind, features: {} };
  const trouble = new Diagnosis(situation);
  const { present, shows, reported } = drawTrouble(trouble, random);
  // A person tells two things at most.
  const answers: Record<string, Answer> = Object.fromEntries(Object.entries(reported).slice(0, 2));
  const tried: string[] = [];
  console.log(
    `\n${n + 1}. ${kind}; really: ${present.map((i) => trouble.causes[i]!.name).join(', ') || 'nothing'}`,
  );
  console.log(`   told: ${Object.keys(answers).map(sayFinding).join('; ')}`);
  for (let step = 0; step < 12; step++) {
    const view = troubleView({ ...situation, ruledOut: tried }, answers);
    const [first] = view.suspects;
    const most = first ? `${Math.round(100 * first.chance)} % ${first.name}` : 'nobody';
    for (const { title } of step === 0 ? view.first : []) console.log(`   FIRST ${title}`);
    if (!view.next) {
      console.log(`   [${most}] let it rest`);
      break;
    }
    if ('check' in view.next) {
      const { id, ask, minutes, along, yes, no } = view.next.check;
      const answer = shows.get(id) ? 'yes' : 'no';
      console.log(
        `   [${most}] ASK ${ask} (${minutes} min; yes: ${yes}; no: ${no}${along.length ? `; along: ${along.join(' ')}` : ''}) -> ${answer}`,
      );
      answers[id] = answer;
    } else {
      const { say, cause, minutes, who } = view.next.fix;
      console.log(`   [${most}] DO ${say} (${minutes} min, ${who})`);
      tried.push(cause);
      const i = trouble.causes.findIndex((one) => one.id === cause);
      if (present.includes(i)) {
        console.log('   it held');
        break;
      }
    }
  }
}
