/// <reference types="node" />
import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

/** What we do not say, and what we say instead. */
const unsaid: [RegExp, string][] = [
  [/\b(?:bring|bringing|brought)(?: [\w’]+){0,3} in\b/iu, 'import'],
  [/\b(?:take|takes|taking|taken)(?: \S+){0,3} back\b|\bcalled off\b/iu, 'undo, cancelled'],
  [/\b(?:take|takes|taking|taken)(?: \S+){0,3} (?:away|out)\b/iu, 'remove'],
  [/\b(?:let|letting) (?:\w+ )?in\b|\bshut(?:ting)? (?:\w+ )?out\b/iu, 'invite, remove'],
  [/\bin force\b/iu, 'in use'],
  [/\bput(?:ting)? (?:it |them )?away\b/iu, 'archive'],
  [/\btaken for each other\b/iu, 'often confused'],
  [/\btalked over\b/iu, 'discussed'],
  [/\bboil(?:ed)? |\bslips?\b|\b(?:un)?deal(?:t|s|ing)?\b/iu, 'sort into new codes, mention'],
  [/\bparted by\b/iu, 'separated by'],
  [/\bor no longer\b/iu, 'mark or unmark'],
  [/\bleav(?:e|es|ing)(?: \w+){0,3} out\b|\bleft out\b|\bstr(?:ike|uck|iking)\b/iu, 'exclude'],
  [/\bthat is gone\b/iu, 'deleted'],
  [/\bof whom nothing\b/iu, 'everybody'],
  [/\bwithin it\b/iu, 'broken down by'],
  [/\binks? of\b/iu, 'colour of'],
  [/\bpercent %/iu, 'percent or %'],
  [/\bdid again\b|\bdo again\b/iu, 'redo'],
  [/\b(?:is|are) gone\b|\bwould go:/iu, 'deleted, no longer exists'],
  [
    /\blikest\b|\blikeliest\b|\bsurest\b|\bsurer\b|\brighter\b/iu,
    'most similar, most likely, most certain',
  ],
  [/\bof whom\b|\bso many\b|\bhow manieth\b/iu, 'who; the quantity by name'],
  [/\bmark(?:ed)? words\b|\bmarked passage\b/iu, 'selected'],
  [/\bnarrow(?:ed)?(?: by)?\b/iu, 'filter'],
  [/\banew\b|\bnought\b|\bput in\b|\bunder way\b/iu, 'again, zero, insert, in progress'],
];

const root = fileURLToPath(new URL('../../', import.meta.url));
const filesIn = (folder: string): string[] =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((path) => /(?<!\.test|\.d)\.tsx?$/u.test(path) && !path.includes('migrations'))
    .map((path) => join(folder, path));
const isTexts = (path: string) => /\/\w*(?:[tT]exts|[cC]ommands)\.ts$|\/wording\//u.test(path);

const parsed = (path: string) =>
  ts.createSourceFile(
    path,
    readFileSync(join(root, path), 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );

function textsIn(path: string): string[] {
  const texts: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    if (ts.isTemplateExpression(node))
      texts.push(
        [node.head, ...node.templateSpans.map((span) => span.literal)]
          .map(({ text }) => text)
          .join('…'),
      );
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node))
      texts.push(node.text);
    ts.forEachChild(node, visit);
  };
  visit(parsed(path));
  return texts;
}

/** Words of JSX that somebody reads and that do not come from a file of texts. */
function looseWordsIn(path: string): string[] {
  const loose: string[] = [];
  const spoken = /^(?:label|title|placeholder|alt|aria-label|hint|what)$/u;
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node) && /\p{L}{2}/u.test(node.text)) loose.push(node.text.trim());
    if (
      ts.isJsxAttribute(node) &&
      spoken.test(node.name.getText()) &&
      node.initializer &&
      ts.isStringLiteral(node.initializer) &&
      node.initializer.text !== ''
    )
      loose.push(node.initializer.text);
    ts.forEachChild(node, visit);
  };
  visit(parsed(path));
  return loose;
}

test('no text says what we do not say', () => {
  const found = ['web/src', 'core/src', 'server/src']
    .flatMap(filesIn)
    .filter(isTexts)
    .flatMap((path) => textsIn(path).map((text) => ({ path, text })))
    .flatMap(({ path, text }) =>
      unsaid
        .filter(([words]) => words.test(text))
        .map(([, better]) => `${path}: “${text.trim()}” (${better})`),
    );
  expect(found).toEqual([]);
});

test('what is read on screen is written in the texts of its stop', () => {
  const loose = filesIn('web/src').flatMap((path) =>
    looseWordsIn(path).map((words) => `${path}: “${words}”`),
  );
  expect(loose).toEqual([]);
});

test('problems are worded in one place', () => {
  const elsewhere = filesIn('server/src')
    .filter((path) => !isTexts(path) && !/errors\.ts$|pool\.ts$/u.test(path))
    .filter((path) => /new Problem\(/u.test(readFileSync(join(root, path), 'utf8')));
  expect(elsewhere).toEqual([]);
});

test('the guide says none of it either', () => {
  const pages = readdirSync(join(root, 'docs/guide'));
  for (const page of pages) {
    const text = readFileSync(join(root, 'docs/guide', page), 'utf8').replaceAll(/\s+/gu, ' ');
    expect([page, unsaid.filter(([words]) => words.test(text)).map(String)]).toEqual([page, []]);
  }
});
