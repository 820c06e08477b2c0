/// <reference types="node" />
import { expect, test } from '@jest/globals';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { anchorOf } from './anchors.js';
import { GUIDE, guidePageOf } from './helpPath.js';

const root = fileURLToPath(new URL('../../../', import.meta.url));
const guide = join(root, 'docs/guide');
const pageText = (key: string) => readFileSync(join(guide, `${key}.md`), 'utf8');
const anchorsIn = (key: string) =>
  [...pageText(key).matchAll(/^## (.+)$/gmu)].map(([, heading]) => anchorOf(heading!));

test('every page of the guide is listed, and what it links to is there', () => {
  const files: string[] = readdirSync(guide);
  expect(files.toSorted()).toEqual(GUIDE.map(({ key }) => `${key}.md`).toSorted());
  for (const { key } of GUIDE)
    for (const [, target] of pageText(key).matchAll(/\]\(([^)]+)\)/gu)) {
      const [path = '', anchor] = target!.split('#');
      expect([key, path, existsSync(join(guide, path))]).toEqual([key, path, true]);
      if (anchor) expect(anchorsIn(path.replace(/\.md$/u, ''))).toContain(anchor);
    }
});

test('every term on screen is explained', () => {
  const sources: string[] = readdirSync(join(root, 'web/src'), {
    recursive: true,
    encoding: 'utf8',
  });
  const used = sources
    .filter((path) => path.endsWith('.tsx'))
    .flatMap((path) => [
      ...readFileSync(join(root, 'web/src', path), 'utf8').matchAll(/<Term of="([^"]+)"/gu),
    ])
    .map(([, term]) => term!);
  expect(used.length).toBeGreaterThan(8);
  const explained = anchorsIn('terms');
  expect(used.filter((term) => !explained.includes(term))).toEqual([]);
});

test('help opens at the page of the stop one is on', () => {
  expect(guidePageOf('/studies/1/questions/2/train')).toBe('train');
  expect(guidePageOf('/studies/1/questions/2/left')).toBe('review');
  expect(guidePageOf('/studies/1/respondents')).toBe('groups');
  expect(guidePageOf('/studies/1/questions/2/second-reading/x')).toBe('second-reading');
  expect(guidePageOf('/studies/1/unknown')).toBe('start');
});
