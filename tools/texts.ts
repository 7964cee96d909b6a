/*
 * npm run texts: every sentence a person can meet, one file a region in texts/, each with where it appears:
 * the knowledge in that region's words, what the core says in sentences of its own, and the screens. Prints how
 * hard they are to read.
 */
import { fleschKincaid } from 'flesch-kincaid';
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { syllable } from 'syllable';
import ts from 'typescript';
import { inTongue, type Tongue } from '../core/src/regions/in-tongue.js';
import { speakAs } from '../core/src/regions/spoken.js';
import { everyText, wordsOf, type PlacedText } from '../core/src/views/every-text.js';

const root = join(import.meta.dirname, '..');
const TONGUES: Record<string, Tongue> = {
  eu: { region: 'eu', units: 'metric' },
  uk: { region: 'uk', units: 'metric' },
  us: { region: 'us', units: 'us' },
};

const filesIn = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesIn(path) : [path];
  });
const isRead = (path: string): boolean =>
  /\.(ts|html)$/.test(path) &&
  !/\.spec\.ts$|\.generated\.|testing\.ts$|phrases\.ts$|\/data\/|\/laws\/|\/regions\//.test(path);

/** A sentence or a few words, not a path, a selector or a rule of style. */
const isSaid = (text: string): boolean =>
  /^[\p{Lu}\d“(…]?[\p{L}\d’“”…,.:;?!%°()+×·=<>≥≤ /–-]*$/u.test(text) &&
  /\p{L}{2,} \p{L}+/u.test(text) &&
  !/[a-z]-[a-z]+ [a-z]+-[a-z]|^[a-z-]+( [a-z-]+)+$|\btrack \w+\.|^as \w+\)|^\w+\.\w+\)/.test(text);

/** What stands between the tags of a template, and in the attributes that are read. */
function* ofTemplate(template: string): Generator<string> {
  const attributes = /\b(?:aria-label|placeholder|title|lead|label|keep)="([^"]+)"/g;
  for (const [, text] of template.matchAll(attributes)) yield text!;
  for (const [, text] of template.matchAll(/'([^'\n]{6,})'/g)) yield text!;
  const between = template
    .replaceAll(/<[^>]+>/g, '\n')
    .replaceAll(/@(if|for|else|let|switch|case|default|empty)[^{\n;]*[{;]?/g, '\n')
    .replaceAll(/\{\{[^}]*\}\}/g, ' … ')
    .replaceAll(/[{}]/g, '\n');
  for (const line of between.split(/\n\s*\n|\n(?=\s{2,}\S)/)) yield line.replaceAll(/\s+/g, ' ');
}

/** Text literals of a program, sentences with something put into them as one. */
function* ofProgram(source: ts.SourceFile): Generator<[string, number]> {
  const found: [string, number][] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) return;
    const line = source.getLineAndCharacterOfPosition(node.getStart()).line + 1;
    if (ts.isStringLiteralLike(node)) {
      if (/<\w+|^\s*:host|\{\s*$/m.test(node.text)) {
        if (node.text.includes('<'))
          for (const one of ofTemplate(node.text)) found.push([one, line]);
      } else found.push([node.text, line]);
    } else if (ts.isTemplateExpression(node)) {
      const parts = node.templateSpans.map(({ literal }) => literal.text);
      found.push([[node.head.text, ...parts].join('…'), line]);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  yield* found;
}

function* ofPrograms(): Generator<PlacedText> {
  for (const path of ['core/src', 'web/src/app', 'server/src'].flatMap((one) =>
    filesIn(join(root, one)),
  )) {
    if (!isRead(path)) continue;
    const text = readFileSync(path, 'utf8');
    const at = relative(root, path);
    const said = path.endsWith('.html')
      ? [...ofTemplate(text)].map((one) => [one, 0] as const)
      : [...ofProgram(ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true))];
    for (const [one, line] of said) {
      const trimmed = one.trim();
      if (isSaid(trimmed)) yield { at: line ? `${at}:${line}` : at, text: trimmed };
    }
  }
}

/** Grade of reading after Kincaid: years of school; 7 is an age of about twelve. */
function gradeOf(texts: readonly string[]): number {
  const sentences = texts.flatMap((text) => text.split(/(?<=[.?!])\s+/)).filter(Boolean);
  const words = sentences.flatMap(wordsOf);
  return fleschKincaid({
    sentence: sentences.length,
    word: words.length,
    syllable: words.reduce((sum, word) => sum + Math.max(1, syllable(word)), 0),
  });
}

const programs = [...ofPrograms()];
mkdirSync(join(root, 'texts'), { recursive: true });
for (const [region, tongue] of Object.entries(TONGUES)) {
  speakAs(tongue);
  const all = [
    ...everyText(),
    ...programs.map(({ at, text }) => ({
      at,
      text: at.startsWith('core') ? inTongue(text, tongue) : text,
    })),
  ];
  const once = [...new Map(all.map((one) => [`${one.at}\t${one.text}`, one])).values()];
  writeFileSync(
    join(root, 'texts', `${region}.txt`),
    once.map(({ at, text }) => `${at}\t${text.replaceAll(/\s+/g, ' ')}\n`).join(''),
  );
  const knowledge = [...everyText()];
  const kinds: [string, PlacedText[]][] = [
    ['what to do', knowledge.filter(({ at }) => at.endsWith('/do'))],
    ['why', knowledge.filter(({ at }) => at.endsWith('/why'))],
    ['what to look at', knowledge.filter(({ at }) => at.endsWith('/look'))],
    ['cautions', knowledge.filter(({ at }) => at.startsWith('HAZARDS'))],
    ['stops', knowledge.filter(({ at }) => at.startsWith('STOP_RULES'))],
    ['looks in trouble', knowledge.filter(({ at }) => at.startsWith('CHECKS'))],
    ['all knowledge', knowledge],
    ['programs and screens', programs],
  ];
  console.log(`texts/${region}.txt: ${once.length} texts`);
  for (const [name, some] of kinds) {
    const texts = some.map(({ text }) => text);
    const sentences = texts.flatMap((text) => text.split(/(?<=[.?!])\s+/));
    const longest = Math.max(...sentences.map((one) => wordsOf(one).length));
    console.log(
      `  ${name.padEnd(22)} ${String(texts.length).padStart(5)} texts, grade ${gradeOf(texts).toFixed(1)}, longest sentence ${longest} words`,
    );
  }
}
