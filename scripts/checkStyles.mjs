// Holds the look in one place, as part of `npm run lint`:
// 1. colours and sizes of type stand in web/src/app/tokens.ts and nowhere else;
// 2. a style sheet beside components styles those components only: every selector in it names a class that no component of another folder has;
// 3. web/src/app/styles.css holds what several folders share, and no rule of one folder alone.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import postcss from 'postcss';
import { ROOT } from './lib.mjs';

const WEB = join(ROOT, 'web/src');
const files = readdirSync(WEB, { recursive: true }).filter((name) => /\.(css|tsx?)$/.test(name) && !/\.test\.tsx?$|^testing\//.test(name));
const read = (name) => readFileSync(join(WEB, name), 'utf8');

// The studio paints a room and its light: that is a picture, not the interface.
const literals = files
  .filter((name) => !/^studio\/.*\.ts$|tokens\.(ts|css)$/.test(name))
  .flatMap((name) =>
    read(name)
      .split('\n')
      .flatMap((line, i) => {
        const colour =
          /['"`: (,]#(?:[0-9a-f]{3}|[0-9a-f]{6})\b(?!-)|\b(?:rgba?|hsla?)\(\d/i.test(line) && !/querySelector|href=/.test(line);
        const size = name.endsWith('.css') && /font-size: \d*\.?\d+(?:px|rem|em)|^\s+\d+px\/[\d.]+ /.test(line);
        return colour || size ? [`web/src/${name}:${i + 1}: ${line.trim()}`] : [];
      }),
  );

/** Class names a component writes: whole words of the strings in its `className`, in columns of a table too. */
function classesOf(source) {
  const written = source.matchAll(/[cC]lassName(?:=|: |=\{[^}]*=> )(?:"([^"]*)"|'([^']*)'|\{((?:[^{}]|\{[^{}]*\})*)\})/g);
  return [...written].flatMap(([, attribute, property, expression]) => {
    const strings = expression === undefined ? [attribute ?? property] : (expression.match(/'[^']*'|`[^`]*`/g) ?? []);
    return strings.flatMap((text) => text.replace(/\$\{[^}]*\}/g, ' ').match(/[a-z][\w-]*/g) ?? []);
  });
}

const foldersOf = new Map();
for (const name of files.filter((f) => f.endsWith('.tsx')))
  for (const word of classesOf(read(name))) foldersOf.set(word, (foldersOf.get(word) ?? new Set()).add(dirname(name)));

const misplaced = [];
for (const name of files.filter((f) => f.endsWith('.css') && !/tokens|fonts/.test(f)))
  postcss.parse(read(name)).walkRules((rule) => {
    if (rule.parent.name === 'keyframes') return;
    for (const selector of rule.selectors) {
      const classes = [...selector.matchAll(/\.([a-zA-Z][\w-]*)/g)].map(([, word]) => word);
      const only = classes.filter((word) => foldersOf.get(word)?.size === 1).map((word) => [...foldersOf.get(word)][0]);
      const folder = dirname(name);
      const where = `web/src/${name}:${rule.source.start.line}: ${selector}`;
      if (folder === 'app' && foldersOf.get(classes[0])?.size === 1 && only[0] !== 'app')
        misplaced.push(`${where} belongs to web/src/${only[0]}`);
      if (folder !== 'app' && !only.includes(folder)) misplaced.push(`${where} reaches beyond its folder`);
    }
  });

if (literals.length > 0) console.error(`Colours and sizes of type come from web/src/app/tokens.ts:\n${literals.join('\n')}`);
if (misplaced.length > 0)
  console.error(`A style sheet styles the components of its folder; what several share is in app/styles.css:\n${misplaced.join('\n')}`);
process.exit(literals.length + misplaced.length > 0 ? 1 : 0);
