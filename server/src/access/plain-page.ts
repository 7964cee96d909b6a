/* Pages that are there before the application is: they stand by themselves, in its colours. */

const STYLE = `
:root { color-scheme: light dark; --linen: #f4eee2; --face: #fcf9f2; --ink: #222a55; --soft: #484f75; --seam: #a99d83; --water: #0b6163; --edge: #867a5f; --stop: #9b2c1f; }
@media (prefers-color-scheme: dark) { :root { --linen: #161929; --face: #1f2338; --ink: #e9e4d6; --soft: #bdb9cb; --seam: #6a6a80; --water: #6fc7c4; --edge: #7f86a8; --stop: #f0988a; } }
* { box-sizing: border-box; }
body { margin: 0; background: var(--linen); color: var(--ink); font: 1.06rem/1.5 system-ui, sans-serif; }
main { max-width: 38rem; margin: 0 auto; padding: 1.2rem clamp(1rem, 4vw, 2rem) 3rem; }
h1 { font-size: 1.5rem; line-height: 1.2; margin: 0 0 .4rem; padding-bottom: .7rem; border-bottom: 2px dashed var(--seam); }
h2 { font-size: 1.12rem; margin: 1.6rem 0 .4rem; }
p { margin: .4rem 0 .8rem; }
a, summary { color: inherit; }
.button { display: inline-flex; align-items: center; min-height: 48px; padding: .4rem 1.3rem; border-radius: 2rem; border: 2px solid var(--ink); background: var(--ink); color: var(--linen); font: inherit; font-weight: 600; text-decoration: none; cursor: pointer; }
.plain { background: transparent; color: var(--ink); border-color: var(--seam); }
.words { display: block; margin: .5rem 0; padding: .6rem .8rem; background: var(--face); border-left: 4px solid var(--water); font-weight: 600; letter-spacing: .01em; overflow-wrap: anywhere; }
details { border-bottom: 1px dashed var(--seam); }
summary { min-height: 48px; display: flex; align-items: center; gap: .6rem; cursor: pointer; font-weight: 600; list-style: none; }
summary::before { content: '+'; width: 1ch; color: var(--soft); } details[open] summary::before { content: '\\2013'; }
ol { margin: 0 0 1rem; padding-left: 1.4rem; } li { margin: .25rem 0; }
label { display: block; margin: .8rem 0 .3rem; font-weight: 600; }
textarea, input[type=file] { width: 100%; min-height: 48px; padding: .5rem .7rem; border: 2px solid var(--edge); border-radius: .4rem; background: var(--face); color: var(--ink); font: inherit; }
.wrong:empty { display: none; } .wrong { border-left: 4px solid var(--stop); padding-left: .8rem; font-weight: 600; }
.said { color: var(--soft); } [hidden] { display: none !important; }
:focus-visible { outline: 3px solid var(--water); outline-offset: 3px; }
`;

export const escaped = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');

/** @param content of the page, as HTML */
export const plainPage = (title: string, content: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>${escaped(title)} · Needlecase</title>
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<link rel="icon" href="/icon.svg" type="image/svg+xml">
<style>${STYLE}</style>
</head>
<body>
<main>
${content}
</main>
</body>
</html>`;
