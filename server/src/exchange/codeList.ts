import type { Bundle, CodeList, Code, ListedCode, Theme } from '@yellow-thread/contract';
import { lookAssigner } from '@yellow-thread/core/codebook';
import { foldForMatching } from '@yellow-thread/core/text';
import type { EntityManager } from '@mikro-orm/postgresql';
import { randomUUID } from 'node:crypto';
import { codesOf, readBundles, themesOf } from '../codebook/index.js';
import { makeChange } from '../database/index.js';
import type { Maker } from '../people/index.js';
import type { Threads } from '../jobs/index.js';
import { codeListTexts } from '../wording/exchange.js';

/**
 * Reads a code list from a file, on a thread, and tells what taking it in would do.
 *
 * @throws Problem unreadable_sheet
 */
export async function readCodeList(
  em: EntityManager,
  threads: Threads,
  studyId: number,
  file: { fileName: string; content: Uint8Array },
): Promise<CodeList> {
  const { codes, left } = await threads.run('readListed', file);
  const plan = await planOf(em, studyId, codes);
  return {
    codes: plan.codes.map(({ listed, what }) => ({ ...listed, what })),
    newThemes: plan.newThemes.map((theme) => theme.name),
    newBundles: plan.newBundles.map((bundle) => bundle.name),
    intoBundles: plan.intoBundles.length,
    left,
  };
}

/**
 * What becomes of each code of a list: new ones are made, known ones keep their text and have blanks filled. Each is
 * put into its bundles besides those that it is in.
 */
async function planOf(em: EntityManager, studyId: number, listed: readonly ListedCode[]) {
  const known = await codesOf(em, studyId);
  const knownThemes = await themesOf(em, studyId);
  const codes = byName(known);
  const themes = byName(knownThemes);
  const newThemes: Theme[] = [];
  const nextLook = lookAssigner(knownThemes);
  let position = lastPosition(known);
  let themePosition = lastPosition(knownThemes);
  const themeIdOf = (name: string | null) => {
    if (name === null) return null;
    const known = themes.get(foldForMatching(name));
    if (known) return known.id;
    const theme = {
      id: randomUUID(),
      studyId,
      name,
      ...nextLook(),
      position: (themePosition += 1),
    };
    themes.set(foldForMatching(name), theme);
    newThemes.push(theme);
    return theme.id;
  };
  const planned = listed.map((one) => {
    const known = codes.get(foldForMatching(one.name));
    if (!known) {
      const { name, definition, include, exclude } = one;
      const fresh: Code = {
        id: randomUUID(),
        studyId,
        themeId: themeIdOf(one.theme),
        name,
        definition,
        include,
        exclude,
        position: (position += 1),
        archived: false,
        questions: null,
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

const lastPosition = (all: readonly { position: number }[]) =>
  all.reduce((last, { position }) => Math.max(last, position), 0);

/** Case and white space aside; of several of one name the first. */
const byName = <T extends { name: string }>(all: readonly T[]): Map<string, T> =>
  new Map(all.toReversed().map((one) => [foldForMatching(one.name), one]));

async function bundlesFor(
  em: EntityManager,
  studyId: number,
  planned: readonly { listed: ListedCode; to: Code }[],
) {
  const known = await readBundles(em, studyId);
  const newBundles: Bundle[] = [];
  const held = new Set(known.flatMap(({ id, codeIds }) => codeIds.map((code) => `${id} ${code}`)));
  const intoBundles: { bundleId: string; codeId: string }[] = [];
  const named = byName<Bundle>(known);
  let position = lastPosition(known);
  for (const { listed, to } of planned)
    for (const name of listed.bundles) {
      let bundle = named.get(foldForMatching(name));
      if (!bundle) {
        bundle = { id: randomUUID(), studyId, name, position: (position += 1) };
        newBundles.push(bundle);
        named.set(foldForMatching(name), bundle);
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
      summary: codeListTexts.codeList(codes.length),
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
