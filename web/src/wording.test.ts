/// <reference types="node" />
import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

/** What we do not say, and what we say instead. */
const unsaid: [RegExp, string][] = [
  [/\b(?:bring|bringing|brought)(?: \w+)? in\b/iu, 'import'],
  [/\b(?:take|taking|taken)(?: it| them)? back\b/iu, 'undo'],
  [/\b(?:let|letting) (?:\w+ )?in\b|\bshut(?:ting)? (?:\w+ )?out\b/iu, 'invite, remove'],
  [/\bin force\b/iu, 'in use'],
  [/\bput(?:ting)? (?:it |them )?away\b/iu, 'archive'],
  [/\btaken for each other\b/iu, 'often confused'],
  [/\btalked over\b/iu, 'discussed'],
  [/\bboil(?:ed)? /iu, 'sort into new codes'],
  [/\bparted by\b/iu, 'separated by'],
  [/\bor no longer\b/iu, 'mark or unmark'],
  [/\bleav(?:e|es|ing) (?:it |them |\w+ )?out\b|\bleft out\b/iu, 'exclude'],
  [/\bthat is gone\b/iu, 'deleted'],
  [/\bof whom nothing\b/iu, 'everybody'],
  [/\bwithin it\b/iu, 'broken down by'],
  [/\binks? of\b/iu, 'colour of'],
  [/\bpercent %/iu, 'percent or %'],
  [/\bdid again\b|\bdo again\b/iu, 'redo'],
];

const root = fileURLToPath(new URL('../../', import.meta.url));
const isSource = (path: string) => /(?<!\.test|\.d)\.tsx?$/u.test(path);
const filesIn = (folder: string): string[] =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((path: string) => isSource(path) && !path.includes('migrations'))
    .map((path: string) => join(folder, path));

/** Texts in a source that somebody may read: neither names of modules and classes nor SQL. */
function textsIn(path: string): string[] {
  const source = ts.createSourceFile(
    path,
    readFileSync(join(root, path), 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const texts: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) return;
    if (ts.isJsxAttribute(node) && node.name.getText(source) === 'className') return;
    if (ts.isTemplateExpression(node))
      texts.push(
        [node.head, ...node.templateSpans.map((span) => span.literal)]
          .map(({ text }) => text)
          .join('…'),
      );
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node))
      texts.push(node.text);
    else if (ts.isJsxText(node)) texts.push(node.text.replaceAll(/\s+/gu, ' '));
    ts.forEachChild(node, visit);
  };
  visit(source);
  return texts.filter(
    (text) =>
      !/^\s*(?:select|insert|update|delete|with|create|from|exists)\b|\bwhere\b/u.test(text),
  );
}

test('no text says what we do not say', () => {
  const found = ['web/src', 'core/src', 'server/src', 'contract/src']
    .flatMap(filesIn)
    .flatMap((path) => textsIn(path).map((text) => ({ path, text })))
    .flatMap(({ path, text }) =>
      unsaid
        .filter(([words]) => words.test(text))
        .map(([, better]) => `${path}: “${text.trim()}” (${better})`),
    );
  expect(found).toEqual([]);
});

test('the guide says none of it either', () => {
  const pages = readdirSync(join(root, 'docs/guide'));
  for (const page of pages) {
    const text = readFileSync(join(root, 'docs/guide', page), 'utf8').replaceAll(/\s+/gu, ' ');
    expect([page, unsaid.filter(([words]) => words.test(text)).map(String)]).toEqual([page, []]);
  }
});
