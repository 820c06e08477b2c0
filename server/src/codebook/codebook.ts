import type { Code, CodeCreate, CodeEdit, Theme, ThemeEdit } from '@yellow-thread/contract';
import { INKS, nextLook, placeBefore, STITCHES } from '@yellow-thread/core/codebook';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  type ChangeDiff,
  CodeEntity,
  inChange,
  makeChange,
  row,
  rows,
  ThemeEntity,
} from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../wording/problems.js';
import { codesOf, findCode, findTheme, themesOf } from './records.js';
import { codebookTexts } from '../wording/codebook.js';

/** A new code at the end of the codebook, not yet written. @throws Problem name_taken */
export async function draftCode(
  em: EntityManager,
  studyId: number,
  create: CodeCreate,
): Promise<Code> {
  await refuseTakenName(em, { what: 'code', studyId, name: create.name, id: create.id });
  const { position } = await row<{ position: number }>(
    em,
    'select coalesce(max(position), 0) + 1 as position from code where study_id = :studyId',
    { studyId },
  );
  return {
    ...create,
    studyId,
    definition: '',
    include: '',
    exclude: '',
    position,
    archived: false,
    questions: null,
  };
}

/** A new theme with the next ink and stitch, not yet written. @throws Problem name_taken */
export async function draftTheme(
  em: EntityManager,
  studyId: number,
  create: { id: string; name: string },
): Promise<Theme> {
  await refuseTakenName(em, { what: 'theme', studyId, name: create.name, id: create.id });
  const themes = await em.find(ThemeEntity, { studyId });
  const position = Math.max(0, ...themes.map((theme) => theme.position)) + 1;
  return { ...create, studyId, ...nextLook(themes), position };
}

/** Makes a code; the same code made again by a request sent twice is left as it is. */
export async function createCode(em: EntityManager, maker: Maker, create: CodeCreate) {
  if (await em.findOne(CodeEntity, { id: create.id, studyId: maker.studyId })) return;
  const code = await draftCode(em, maker.studyId, create);
  await inChange(em, (tx) =>
    makeChange(tx, {
      ...maker,
      summary: codebookTexts.newCode(code.name),
      diff: { code: { added: [code], updated: [], removed: [] } },
    }),
  );
}

/** Changes fields of a code that are still as the editor saw them. */
export async function editCode(em: EntityManager, maker: Maker, id: string, edit: CodeEdit) {
  const stored = await findCode(em, maker.studyId, id);
  const from: Code = { ...stored, ...edit.from };
  if (edit.to.name !== undefined)
    await refuseTakenName(em, { what: 'code', studyId: maker.studyId, name: edit.to.name, id });
  if (edit.to.themeId) await findTheme(em, maker.studyId, edit.to.themeId);
  const summary =
    edit.to.archived === undefined
      ? codebookTexts.edit(stored.name)
      : `${edit.to.archived ? 'putting' : 'taking'} “${stored.name}” ${edit.to.archived ? 'away' : codebookTexts.outAgain}`;
  await inChange(em, (tx) =>
    makeChange(tx, {
      ...maker,
      summary,
      diff: {
        code: { added: [], updated: [{ from, to: { ...stored, ...edit.to } }], removed: [] },
      },
    }),
  );
}

/** Makes a theme with the next ink and stitch. */
export async function createTheme(
  em: EntityManager,
  maker: Maker,
  create: { id: string; name: string },
) {
  if (await em.findOne(ThemeEntity, { id: create.id, studyId: maker.studyId })) return;
  const theme = await draftTheme(em, maker.studyId, create);
  await inChange(em, (tx) =>
    makeChange(tx, {
      ...maker,
      summary: codebookTexts.newTheme(theme.name),
      diff: { theme: { added: [theme], updated: [], removed: [] } },
    }),
  );
}

/** Renames a theme, or gives it and so all its codes another ink or stitch. */
export async function editTheme(em: EntityManager, maker: Maker, id: string, edit: ThemeEdit) {
  const stored = await findTheme(em, maker.studyId, id);
  const { name, ink, stitch } = edit.to;
  if (name !== undefined)
    await refuseTakenName(em, { what: 'theme', studyId: maker.studyId, name, id });
  if (ink !== undefined && !INKS.some((one) => one === ink)) throw problems.notFound('ink');
  if (stitch !== undefined && !STITCHES.some((one) => one === stitch))
    throw problems.notFound('stitch');
  await inChange(em, (tx) =>
    makeChange(tx, {
      ...maker,
      summary:
        name === undefined ? codebookTexts.look(stored.name) : codebookTexts.renaming(stored.name),
      diff: {
        theme: {
          added: [],
          updated: [{ from: { ...stored, ...edit.from }, to: { ...stored, ...edit.to } }],
          removed: [],
        },
      },
    }),
  );
}

/** Puts a code under a theme, before another one or at the end. */
export async function moveCode(
  em: EntityManager,
  maker: Maker,
  id: string,
  { themeId, before }: { themeId: string | null; before: string | null },
) {
  const stored = await findCode(em, maker.studyId, id);
  const theme = themeId === null ? null : await findTheme(em, maker.studyId, themeId);
  const codes = await codesOf(em, maker.studyId);
  if (before !== null && !codes.some((code) => code.id === before)) throw problems.notFound('code');
  const placed = new Map(placeBefore(codes, id, before).map((code) => [code.id, code]));
  const updated = codes.flatMap((from) => {
    const to = { ...(placed.get(from.id) ?? from), ...(from.id === id && { themeId }) };
    return to.position === from.position && to.themeId === from.themeId ? [] : [{ from, to }];
  });
  await inChange(em, (tx) =>
    makeChange(tx, {
      ...maker,
      summary:
        stored.themeId === themeId
          ? codebookTexts.moving(stored.name)
          : `putting “${stored.name}” ${theme ? codebookTexts.under(theme.name) : codebookTexts.underNoTheme}`,
      diff: { code: { added: [], updated, removed: [] } },
    }),
  );
}

export async function moveTheme(
  em: EntityManager,
  maker: Maker,
  id: string,
  before: string | null,
) {
  const { name } = await findTheme(em, maker.studyId, id);
  const themes = await themesOf(em, maker.studyId);
  if (before !== null && !themes.some((theme) => theme.id === before))
    throw problems.notFound('theme');
  const updated = placeBefore(themes, id, before).map((to) => ({
    from: themes.find((theme) => theme.id === to.id)!,
    to,
  }));
  await inChange(em, (tx) =>
    makeChange(tx, {
      ...maker,
      summary: codebookTexts.moving2(name),
      diff: { theme: { added: [], updated, removed: [] } },
    }),
  );
}

/** Removes a theme; its codes are left without one. */
export async function removeTheme(em: EntityManager, maker: Maker, id: string) {
  const theme = await findTheme(em, maker.studyId, id);
  const codes = (await codesOf(em, maker.studyId)).filter((code) => code.themeId === id);
  const diff: ChangeDiff = {
    theme: { added: [], updated: [], removed: [theme] },
    code: {
      added: [],
      updated: codes.map((from) => ({ from, to: { ...from, themeId: null } })),
      removed: [],
    },
  };
  await inChange(em, (tx) =>
    makeChange(tx, { ...maker, summary: codebookTexts.removalTheme(theme.name), diff }),
  );
}

export async function refuseTakenName(
  em: EntityManager,
  {
    what,
    studyId,
    name,
    id,
  }: { what: 'code' | 'theme' | 'bundle'; studyId: number; name: string; id: string },
) {
  const [taken] = await rows<{ id: string }>(
    em,
    `select id from ${what} where study_id = :studyId and lower(name) = lower(:name) and id <> :id`,
    { studyId, name, id },
  );
  if (taken) throw problems.nameTaken(what, name);
}
