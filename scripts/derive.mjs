// Writes what follows from one definition: the registries of entry kinds and of measuring sheets from their folders; from the built core the kinds in the JSON
// schema of a ledger line, the tables of kinds and of sheets in the documentation, and the worked examples as files. `--check` writes nothing and fails where something is not as it would be written.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import joiToJson from 'joi-to-json';
import * as prettier from 'prettier';
import ts from 'typescript';
import { ROOT, run } from './lib.mjs';

const check = process.argv.includes('--check');
const stale = [];

async function derive(path, text, asIs = false) {
  const file = join(ROOT, path);
  const written = asIs ? text : await prettier.format(text, { ...(await prettier.resolveConfig(file)), filepath: file });
  if (existsSync(file) && readFileSync(file, 'utf8') === written) return;
  if (check) stale.push(path);
  else writeFileSync(file, written);
}

const kinds = readdirSync(join(ROOT, 'core/src/entries/kinds'))
  .filter((name) => /^\w+\.ts$/.test(name))
  .map((name) => name.slice(0, -3))
  .sort();
await derive(
  'core/src/entries/registry.ts',
  `// Written by scripts/derive.mjs from the folder \`kinds\`: add a file there and run it.
${kinds.map((k) => `import { ${k} } from './kinds/${k}.js';`).join('\n')}

/** Every kind of entry there is. */
export const ENTRY_DEFINITIONS = [${kinds.join(', ')}] as const;

${kinds.map((k) => `export * from './kinds/${k}.js';`).join('\n')}
`,
);

const folders = readdirSync(join(ROOT, 'core/src/measure/sheets'), { withFileTypes: true })
  .filter((f) => f.isDirectory())
  .map((f) => f.name)
  .sort();
const sheetName = (folder) =>
  readFileSync(join(ROOT, 'core/src/measure/sheets', folder, 'sheet.ts'), 'utf8').match(/export const (\w+) = defineSheet\(/)[1];
await derive(
  'core/src/measure/sheets/registry.ts',
  `// Written by scripts/derive.mjs from the folders beside it: add one and run it.
${folders.map((f) => `import { ${sheetName(f)} } from './${f}/sheet.js';`).join('\n')}

/** Every measuring sheet there is. */
export const SHEET_DEFINITIONS = [${folders.map(sheetName).join(', ')}] as const;
`,
);

if (!check) run('npx', ['tsc', '-b', 'core']);
const { ENTRY_DEFINITIONS } = await import('@true-ledger/core/entries');
const { SHEETS } = await import('@true-ledger/core/measure');
const schemaPath = 'docs/formats/ledger-entry.schema.json';
const schema = JSON.parse(readFileSync(join(ROOT, schemaPath), 'utf8'));
schema.properties.kind = { enum: ENTRY_DEFINITIONS.map((d) => d.kind) };
await derive(schemaPath, JSON.stringify(schema));

const where = { case: 'the case', station: 'a station', either: 'either' };
const cell = (text) => text.replaceAll('|', '\\|');
const members = (d) =>
  [...Object.entries(d.body.describe().keys ?? {})].map(([name, s]) => (s.flags?.presence === 'required' ? name : `${name}?`)).join(', ');
const rows = [...ENTRY_DEFINITIONS]
  .sort((a, b) => a.kind.localeCompare(b.kind))
  .map((d) => `| \`${d.kind}\` | ${where[d.stands]}${d.byServer ? ', by the server alone' : ''} | ${cell(d.says)} | ${members(d)} |`);
await derive(
  'docs/formats/entries.md',
  `# Kinds of entry

Written by \`scripts/derive.mjs\` from \`core/src/entries/kinds\`, where each kind is one file: schema, slot, where it may stand, what is held against it,
what it adds to the view, its words. A \`?\` marks a member that may be absent.

| Kind | Belongs to | Records | Members of \`body\` |
| --- | --- | --- | --- |
${rows.join('\n')}
`,
);
const { caseFileSchema } = await import(pathToFileURL(join(ROOT, 'core/dist/bundle/caseFile/format.js')).href);
const { engineFileSchema } = await import(pathToFileURL(join(ROOT, 'core/dist/loads/engineFile.js')).href);
const { bearingFileSchema } = await import(pathToFileURL(join(ROOT, 'core/dist/film/bearingFile.js')).href);
for (const [name, title, schema] of [
  ['case', 'True Ledger case file, version 1', caseFileSchema],
  ['engine', 'True Ledger running engine, version 1', engineFileSchema],
  ['bearing', 'True Ledger bearing, version 1', bearingFileSchema],
])
  await derive(
    `docs/formats/${name}.schema.json`,
    JSON.stringify({ $schema: 'https://json-schema.org/draft/2020-12/schema', title, ...joiToJson(schema, 'json-draft-2019-09') }),
  );

if (!check) run('npx', ['tsc', '-b', 'contract']);
const { ERRORS } = await import(pathToFileURL(join(ROOT, 'contract/dist/index.js')).href);
await derive(
  'docs/formats/errors.md',
  `# Refusals of the API

Written by \`scripts/derive.mjs\` from \`core/src/kit/problems.ts\` and \`contract/src/errors.ts\`. Every refusal is one JSON object: \`code\`, \`sentence\` (what happened, what is safe, what to
do), \`field\` where one is at fault, and with \`entry-conflict\` what the field holds now as \`conflict\`.

| Code | Status | Means |
| --- | --- | --- |
${Object.entries(ERRORS)
  .sort(([a], [b]) => a.localeCompare(b))
  .map(([code, { status, means }]) => `| \`${code}\` | ${status} | ${cell(means)} |`)
  .join('\n')}
`,
);

for (const folder of folders) {
  const { example } = await import(pathToFileURL(join(ROOT, 'core/dist/measure/sheets', folder, 'example.js')).href);
  await derive(`docs/formats/examples/measure/${folder}.json`, JSON.stringify(example.file));
}
const measure = readFileSync(join(ROOT, 'docs/formats/measure.md'), 'utf8');
const readings = Object.values(SHEETS).map((s) => `| \`${s.id}\` | ${cell(s.says)} |`);
await derive(
  'docs/formats/measure.md',
  measure.replace(/\| sheet \| readings \|\n(\|.*\n)+/, `| sheet | readings |\n| --- | --- |\n${readings.join('\n')}\n`),
  true,
);

// The look: custom properties of the styles from the tokens, and nobody else writes a colour or a size of type.
const { outputText } = ts.transpileModule(readFileSync(join(ROOT, 'web/src/app/tokens.ts'), 'utf8'), {
  compilerOptions: { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2022 },
});
const { COLOUR, TEXT } = await import(`data:text/javascript,${encodeURIComponent(outputText)}`);
const dashed = (name) => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
await derive(
  'web/src/app/tokens.css',
  `/* Written by scripts/derive.mjs from tokens.ts. */
:root {
${Object.entries(COLOUR)
  .map(([name, value]) => `--${dashed(name)}: ${value};`)
  .join('\n')}
${Object.entries(TEXT)
  .map(([name, px]) => `--text-${dashed(name)}: ${px}px;`)
  .join('\n')}
}
`,
);
// What a subpath of core gives is what somebody outside takes from it.
const outside = ['contract', 'server', 'web', 'cli', 'e2e', 'bench', 'scripts']
  .flatMap((folder) => readdirSync(join(ROOT, folder), { recursive: true }).map((name) => join(ROOT, folder, name)))
  .filter((path) => /\.(ts|tsx|mjs)$/.test(path) && !/\/(node_modules|dist)\//.test(path))
  .map((path) => readFileSync(path, 'utf8'))
  .join('\n');
const namesIn = (list) => list.split(',').map((name) => name.replace('type ', '').split(' as ')[0].trim());
const subpaths = Object.keys(JSON.parse(readFileSync(join(ROOT, 'core/package.json'), 'utf8')).exports).map((path) => path.slice(2));
const idle = subpaths.flatMap((subpath) => {
  const from = new RegExp(`\\{([^{}]*)\\}(?: =)? (?:from|await import\\()\\s*'@true-ledger/core/${subpath}'`, 'g');
  const taken = new Set([...outside.matchAll(from)].flatMap(([, list]) => namesIn(list)));
  const index = readFileSync(join(ROOT, `core/src/${subpath}/index.ts`), 'utf8');
  return [...index.matchAll(/export (?:type )?\{([^}]*)\}/g)]
    .flatMap(([, list]) => namesIn(list))
    .filter((name) => name !== '' && !taken.has(name))
    .map((name) => `${subpath}: ${name}`);
});
if (idle.length > 0) {
  console.error(`core gives what nobody outside takes: ${idle.join(', ')}. Take the names out of the index of the subpath.`);
  process.exit(1);
}
if (stale.length > 0) {
  console.error(`Not as it would be written: ${stale.join(', ')}. Run node scripts/derive.mjs.`);
  process.exit(1);
}
