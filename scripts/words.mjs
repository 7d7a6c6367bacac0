// Finds old wording in the texts that people read: strings of the code, components, README and docs. Part of `npm test`.
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative } from 'node:path';
import { parse } from 'svelte/compiler';
import ts from 'typescript';
import { ROOT } from './lib/run.mjs';

/** More words than this make a sentence of the README or the docs too long. */
const LONGEST = 35;
/** Places where a phrase of the list is right: part of the path, and the text. */
const RIGHT = [
  // Stored words of the build file, and its migration.
  ['core/src/timing/pattern.ts', 'from the middle'],
  ['core/src/timing/library.ts', 'from the middle'],
  ['core/src/arrange/templates/arrow.ts', 'from the middle'],
  ['core/src/design/migrate.ts', 'left out'],
  ['core/src/rules/leftOut.ts', 'left out'],
  ['core/src/rules/controls/direction.ts', 'from the middle'],
  ['web/src/lib/timing/PatternPanel.svelte', 'from the middle'],
  ['docs/files.md', 'from the middle'],
  ['docs/how-it-works.md', 'cannot tell'],
  ['docs/glossary.md', ''],
  // Names of columns.
  ['web/src/lib/server/buildRepo.ts', 'picture'],
];
/** Attributes that nobody reads. */
const UNREAD = new Set(['class', 'id', 'for', 'type', 'name', 'role', 'href']);
/** The code's own words for a verdict, which the screen maps. */
const CODES = new Set(['cannot tell', 'holds', 'broken', 'silent']);

const phrases = readFileSync(new URL('words.tsv', import.meta.url), 'utf8')
  .split('\n')
  .filter((line) => line !== '' && !line.startsWith('#'))
  .map((line) => {
    const [pattern = '', better = '', scope = ''] = line.split('\t');
    return { pattern: new RegExp(pattern.replaceAll(' ', '\\s+'), 'gi'), better, scope };
  });

/** @typedef {{ readonly line: number, readonly text: string }} Text */

/** @param {string} path @returns {string[]} */
const filesUnder = (path) =>
  statSync(path).isDirectory()
    ? readdirSync(path).flatMap((name) => filesUnder(join(path, name)))
    : /(?<!\.test|\.testing|\.d)\.(ts|svelte|md)$/.test(path)
      ? [path]
      : [];

/** What people may read of a literal: words with a space between, or one that begins with a capital. */
const isRead = (/** @type {string} */ text) =>
  /[a-z]/.test(text) && (/\s/.test(text.trim()) || /^[A-Z]/.test(text));

/** @param {string} code @param {number} [from] - the line it begins at @returns {Text[]} */
function literalsOf(code, from = 1) {
  const source = ts.createSourceFile('a.ts', code, ts.ScriptTarget.ES2023, true);
  /** @type {Text[]} */
  const found = [];
  const add = (/** @type {ts.Node} */ node, /** @type {string} */ text) => {
    if (isRead(text) && !CODES.has(text))
      found.push({ line: from + source.getLineAndCharacterOfPosition(node.getStart(source)).line, text });
  };
  const visit = (/** @type {ts.Node} */ node) => {
    if (ts.isImportDeclaration(node) || ts.isLiteralTypeNode(node)) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) add(node, node.text);
    if (ts.isTemplateExpression(node)) {
      add(node, [node.head.text, ...node.templateSpans.map(({ literal }) => `…${literal.text}`)].join(''));
      for (const span of node.templateSpans) visit(span.expression);
      return;
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** @param {string} code @returns {Text[]} */
function componentTexts(code) {
  const lineAt = (/** @type {number} */ at) => code.slice(0, at).split('\n').length;
  /** @type {Text[]} */
  const found = [];
  const script = /<script[^>]*>([\s\S]*?)<\/script>/.exec(code);
  if (script !== null) found.push(...literalsOf(script[1] ?? '', lineAt(script.index)));
  const visit = (/** @type {unknown} */ node) => {
    if (Array.isArray(node)) for (const one of node) visit(one);
    else if (typeof node === 'object' && node !== null) {
      if ('type' in node && node.type === 'Attribute' && 'name' in node && UNREAD.has(String(node.name)))
        return;
      if ('type' in node && node.type === 'Text' && 'data' in node && 'start' in node)
        found.push({ line: lineAt(Number(node.start)), text: String(node.data) });
      if ('type' in node && node.type === 'Literal' && 'value' in node && 'start' in node) {
        const { value } = node;
        if (typeof value === 'string' && isRead(value) && !CODES.has(value))
          found.push({ line: lineAt(Number(node.start)), text: value });
      }
      for (const [key, value] of Object.entries(node)) if (key !== 'css' && key !== 'instance') visit(value);
    }
  };
  visit(parse(code, { modern: true }).fragment);
  return found;
}

/** @param {string} text @returns {Text[]} */
const paragraphs = (text) =>
  text
    .replaceAll(/```[\s\S]*?```/g, (block) => block.replaceAll(/[^\n]/g, ''))
    .split('\n')
    .map((line, i) => ({
      line: i + 1,
      text: line.replaceAll(/`[^`]*`/g, '…').replaceAll(/\]\([^)]*\)/g, ']'),
    }));

/** @param {string} file @returns {Text[]} */
function textsOf(file) {
  const content = readFileSync(file, 'utf8');
  if (file.endsWith('.md')) return paragraphs(content);
  return file.endsWith('.svelte') ? componentTexts(content) : literalsOf(content);
}

const problems = ['README.md', 'docs', 'core/src', 'web/src', 'cli/src'].flatMap((path) =>
  filesUnder(join(ROOT, path)).flatMap((file) => {
    const name = relative(ROOT, file);
    const kind = file.endsWith('.md') ? 'docs' : 'ui';
    return textsOf(file).flatMap(({ line, text }) => {
      const old = phrases
        .filter(({ scope }) => scope === '' || scope === kind)
        .flatMap(({ pattern, better }) => [...text.matchAll(pattern)].map(([word]) => ({ word, better })))
        .filter(
          ({ word }) => !RIGHT.some(([at = '', right = '']) => name.startsWith(at) && word.includes(right)),
        )
        .map(({ word, better }) => `${name}:${line}: “${word}” → ${better}`);
      const long =
        kind !== 'docs' || text.startsWith('|') || name === 'docs/files.md'
          ? []
          : text
              .split(/(?<=[.!?:;])\s/)
              .filter((sentence) => sentence.split(/\s+/).length > LONGEST)
              .map((sentence) => `${name}:${line}: a sentence of ${sentence.split(/\s+/).length} words`);
      return [...old, ...long];
    });
  }),
);
for (const problem of problems) console.error(problem);
if (problems.length > 0) {
  console.error(`${problems.length} texts need other words; see scripts/words.tsv.`);
  process.exitCode = 1;
} else console.log('No old wording in any text.');
