import type { Bundle, CodeList, Code, ListedCode, Theme } from '@yellow-thread/contract';
import { listedCodeSchema } from '@yellow-thread/contract';
import { findCodeNamed, nextLook } from '@yellow-thread/core/codebook';
import { findHead } from '@yellow-thread/core/sheet';
import type { EntityManager } from '@mikro-orm/postgresql';
import { randomUUID } from 'node:crypto';
import { codesOf, readBundles, themesOf } from '../codebook/index.js';
import { makeChange } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../problems.js';
import { readTable } from '../sheet/index.js';
import { readQdc } from './qdc.js';

/** What the columns of a code list may be called, in English and German. */
const columnNames: Record<keyof ListedCode, RegExp> = {
  theme: /^(?:theme|category|parent|group|thema|kategorie|oberkategorie)$/iu,
  name: /^(?:code|name|code name|label|bezeichnung)$/iu,
  definition: /^(?:definition|description|meaning|beschreibung)$/iu,
  include: /^(?:include|includes|inclusion|einschluss)$/iu,
  exclude: /^(?:leave out|exclude|excludes|exclusion|ausschluss)$/iu,
  bundles: /^(?:bundles?|bündel)$/iu,
};

/**
 * Reads a code list from a sheet or a REFI-QDA codebook, and tells what taking it in would do.
 *
 * @throws Problem unreadable_sheet
 */
export async function readCodeList(
  em: EntityManager,
  studyId: number,
  fileName: string,
  content: Buffer,
): Promise<CodeList> {
  const written = content.toString('utf8');
  const isXml = /^\uFEFF?\s*<(?:\?xml|CodeBook)/u.test(written);
  const listed = isXml
    ? readQdc(written.replace(/^\uFEFF/u, ''), fileName)
    : fromTable(await readTable(fileName, content), fileName);
  const left: string[] = [];
  const codes: ListedCode[] = [];
  for (const [place, code] of listed.entries()) {
    const checked = listedCodeSchema.safeParse(code);
    if (!checked.success)
      left.push(
        `Code ${place + 1}: its ${String(checked.error.issues[0]!.path[0])} cannot be kept.`,
      );
    else if (findCodeNamed(codes, code.name))
      left.push(`Code ${place + 1}: “${code.name}” is in the list twice; the first was taken.`);
    else codes.push(checked.data);
  }
  if (codes.length === 0)
    throw problems.unreadableSheet(
      `“${fileName}” holds no codes: a code list has a column “code” (and may have “theme”, “definition”, “include”, “leave out”).`,
    );
  const plan = await planOf(em, studyId, codes);
  return {
    codes: plan.codes.map(({ listed, what }) => ({ ...listed, what })),
    newThemes: plan.newThemes.map((theme) => theme.name),
    newBundles: plan.newBundles.map((bundle) => bundle.name),
    intoBundles: plan.intoBundles.length,
    left,
  };
}

function fromTable(rows: readonly string[][], fileName: string): ListedCode[] {
  const head = findHead(rows.slice(0, 20));
  const names = head ? (rows[head.row - 1] ?? []).map((cell) => cell.trim()) : [];
  const columnOf = (field: keyof ListedCode) =>
    names.findIndex((name) => columnNames[field].test(name));
  if (columnOf('name') < 0)
    throw problems.unreadableSheet(
      `“${fileName}” has no column “code”: name the column with the codes so.`,
    );
  const cell = (row: readonly string[], field: keyof ListedCode) =>
    (row[columnOf(field)] ?? '').trim();
  return rows
    .slice(head!.row)
    .filter((row) => cell(row, 'name') !== '')
    .map((row) => ({
      theme: cell(row, 'theme') || null,
      name: cell(row, 'name'),
      definition: cell(row, 'definition'),
      include: cell(row, 'include'),
      exclude: cell(row, 'exclude'),
      bundles: cell(row, 'bundles')
        .split(';')
        .map((name) => name.trim())
        .filter((name) => name !== ''),
    }));
}

/**
 * What becomes of each code of a list: new ones are made, known ones keep their text and have blanks filled. Each is
 * put into its bundles besides those that it is in.
 */
async function planOf(em: EntityManager, studyId: number, listed: readonly ListedCode[]) {
  const codes = await codesOf(em, studyId);
  const themes = await themesOf(em, studyId);
  const newThemes: Theme[] = [];
  let position = Math.max(0, ...codes.map((code) => code.position));
  const themeIdOf = (name: string | null) => {
    if (name === null) return null;
    const known = findCodeNamed([...themes, ...newThemes], name);
    if (known) return known.id;
    const all = [...themes, ...newThemes];
    const last = Math.max(0, ...all.map((theme) => theme.position));
    const theme = { id: randomUUID(), studyId, name, ...nextLook(all), position: last + 1 };
    newThemes.push(theme);
    return theme.id;
  };
  const planned = listed.map((one) => {
    const known = findCodeNamed(codes, one.name);
    if (!known) {
      const { name, definition, include, exclude } = one;
      const fresh: Code = {
        ...{ id: randomUUID(), studyId, themeId: themeIdOf(one.theme), name },
        ...{ definition, include, exclude, position: (position += 1) },
        ...{ archived: false, questions: null },
      };
      return { listed: one, what: 'new' as const, from: null, to: fresh };
    }
    const to: Code = {
      ...known,
      definition: known.definition || one.definition,
      include: known.include || one.include,
      exclude: known.exclude || one.exclude,
      themeId: known.themeId ?? themeIdOf(one.theme),
    };
    const same = (['definition', 'include', 'exclude', 'themeId'] as const).every(
      (field) => known[field] === to[field],
    );
    return { listed: one, what: same ? ('known' as const) : ('filled' as const), from: known, to };
  });
  return { codes: planned, newThemes, ...(await bundlesFor(em, studyId, planned)) };
}

async function bundlesFor(
  em: EntityManager,
  studyId: number,
  planned: readonly { listed: ListedCode; to: Code }[],
) {
  const known = await readBundles(em, studyId);
  const newBundles: Bundle[] = [];
  const held = new Set(known.flatMap(({ id, codeIds }) => codeIds.map((code) => `${id} ${code}`)));
  const intoBundles: { bundleId: string; codeId: string }[] = [];
  let position = Math.max(0, ...known.map((bundle) => bundle.position));
  for (const { listed, to } of planned)
    for (const name of listed.bundles) {
      let bundle = findCodeNamed<Bundle>([...known, ...newBundles], name);
      if (!bundle) {
        bundle = { id: randomUUID(), studyId, name, position: (position += 1) };
        newBundles.push(bundle);
      }
      const key = `${bundle.id} ${to.id}`;
      if (held.has(key)) continue;
      held.add(key);
      intoBundles.push({ bundleId: bundle.id, codeId: to.id });
    }
  return { newBundles, intoBundles };
}

/** Takes a code list into the codebook, as one change. */
export async function takeCodeList(em: EntityManager, maker: Maker, listed: readonly ListedCode[]) {
  await em.transactional(async (tx) => {
    const { codes, newThemes, newBundles, intoBundles } = await planOf(tx, maker.studyId, listed);
    const added = codes.flatMap(({ from, to }) => (from ? [] : [to]));
    await makeChange(tx, {
      ...maker,
      summary: `the code list of ${codes.length} codes`,
      diff: {
        theme: { added: newThemes, updated: [], removed: [] },
        code: {
          added,
          updated: codes.flatMap(({ what, from, to }) =>
            what === 'filled' && from ? [{ from, to }] : [],
          ),
          removed: [],
        },
        bundle: { added: newBundles, updated: [], removed: [] },
        bundle_code: { added: intoBundles, updated: [], removed: [] },
      },
    });
  });
}
