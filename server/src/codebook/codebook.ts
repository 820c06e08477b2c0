import type {
  Code,
  Codebook,
  CodeCreate,
  CodeEdit,
  CountedCode,
  Theme,
} from '@yellow-thread/contract';
import { nextLook } from '@yellow-thread/core/codebook';
import type { EntityManager } from '@mikro-orm/postgresql';
import { CodeEntity, makeChange, row, rows, ThemeEntity, type CodeRow } from '../database/index.js';
import type { Maker } from '../people/index.js';
import { problems } from '../problems.js';

/** Themes and codes in order, each code with the people and mentions it has in all questions. */
export async function readCodebook(em: EntityManager, studyId: number): Promise<Codebook> {
  const themes = await rows<Theme>(
    em,
    `select id, study_id as "studyId", name, ink, stitch, position from theme
     where study_id = ? order by position, name`,
    [studyId],
  );
  const codes = await rows<CountedCode>(
    em,
    `select c.id, c.study_id as "studyId", c.theme_id as "themeId", c.name, c.definition, c.include,
       c.exclude, c.position, coalesce(n.people, 0) as people, coalesce(n.mentions, 0) as mentions
     from code c
     left join (
       select m.code_id, count(*)::int as mentions, count(distinct r.respondent_id)::int as people
       from mention m join response r on r.id = m.response_id
       join question q on q.id = r.question_id and q.study_id = ?
       group by m.code_id) n on n.code_id = c.id
     where c.study_id = ? order by c.position, c.name`,
    [studyId, studyId],
  );
  return { themes, codes };
}

/** A new code at the end of the codebook, not yet written. @throws Problem name_taken */
export async function draftCode(
  em: EntityManager,
  studyId: number,
  create: CodeCreate,
): Promise<Code> {
  await refuseTakenName(em, studyId, create.name, create.id);
  const { position } = await row<{ position: number }>(
    em,
    'select coalesce(max(position), 0) + 1 as position from code where study_id = ?',
    [studyId],
  );
  return { ...create, studyId, definition: '', include: '', exclude: '', position };
}

/** Makes a code; the same code made again by a request sent twice is left as it is. */
export async function createCode(em: EntityManager, maker: Maker, create: CodeCreate) {
  if (await em.findOne(CodeEntity, { id: create.id, studyId: maker.studyId })) return;
  const code = await draftCode(em, maker.studyId, create);
  await em.transactional((tx) =>
    makeChange(tx, {
      ...maker,
      summary: `the new code “${code.name}”`,
      diff: { code: { added: [code], updated: [], removed: [] } },
    }),
  );
}

/** Changes fields of a code that are still as the editor saw them. */
export async function editCode(em: EntityManager, maker: Maker, id: string, edit: CodeEdit) {
  const found = await em.findOne(CodeEntity, { id, studyId: maker.studyId });
  if (!found) throw problems.notFound('code');
  const stored = asCode(found);
  const from: Code = { ...stored, ...edit.from };
  if (edit.to.name !== undefined) await refuseTakenName(em, maker.studyId, edit.to.name, id);
  if (edit.to.themeId) await findTheme(em, maker.studyId, edit.to.themeId);
  await em.transactional((tx) =>
    makeChange(tx, {
      ...maker,
      summary: `the edit of “${stored.name}”`,
      diff: {
        code: { added: [], updated: [{ from, to: { ...stored, ...edit.to } }], removed: [] },
      },
    }),
  );
}

/** Removes a code that nothing mentions. */
export async function removeCode(em: EntityManager, maker: Maker, id: string) {
  const found = await em.findOne(CodeEntity, { id, studyId: maker.studyId });
  if (!found) throw problems.notFound('code');
  const { used } = await row<{ used: boolean }>(
    em,
    'select exists (select 1 from mention where code_id = ?) as used',
    [id],
  );
  if (used) throw problems.codeInUse(found.name);
  await em.transactional((tx) =>
    makeChange(tx, {
      ...maker,
      summary: `the removal of “${found.name}”`,
      diff: { code: { added: [], updated: [], removed: [asCode(found)] } },
    }),
  );
}

/** Makes a theme with the next ink and stitch. */
export async function createTheme(
  em: EntityManager,
  maker: Maker,
  create: { id: string; name: string },
) {
  const themes = await em.find(ThemeEntity, { studyId: maker.studyId });
  if (themes.some((theme) => theme.id === create.id)) return;
  if (themes.some((theme) => theme.name.toLowerCase() === create.name.toLowerCase()))
    throw problems.nameTaken('theme', create.name);
  const position = Math.max(0, ...themes.map((theme) => theme.position)) + 1;
  const theme: Theme = { ...create, studyId: maker.studyId, ...nextLook(themes), position };
  await em.transactional((tx) =>
    makeChange(tx, {
      ...maker,
      summary: `the new theme “${theme.name}”`,
      diff: { theme: { added: [theme], updated: [], removed: [] } },
    }),
  );
}

export async function renameTheme(
  em: EntityManager,
  maker: Maker,
  id: string,
  edit: { from: { name: string }; to: { name: string } },
) {
  const { studyId, name, ink, stitch, position } = await findTheme(em, maker.studyId, id);
  const stored: Theme = { id, studyId, name, ink, stitch, position };
  const taken = await em.find(ThemeEntity, { studyId: maker.studyId });
  if (taken.some((one) => one.id !== id && one.name.toLowerCase() === edit.to.name.toLowerCase()))
    throw problems.nameTaken('theme', edit.to.name);
  await em.transactional((tx) =>
    makeChange(tx, {
      ...maker,
      summary: `the renaming of “${edit.from.name}”`,
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

async function findTheme(em: EntityManager, studyId: number, id: string) {
  const theme = await em.findOne(ThemeEntity, { id, studyId });
  if (!theme) throw problems.notFound('theme');
  return theme;
}

async function refuseTakenName(em: EntityManager, studyId: number, name: string, id: string) {
  const [taken] = await rows<{ id: string }>(
    em,
    'select id from code where study_id = ? and lower(name) = lower(?) and id <> ?',
    [studyId, name, id],
  );
  if (taken) throw problems.nameTaken('code', name);
}

/** A stored code as the record that a change holds. */
export function asCode(stored: CodeRow): Code {
  const { id, studyId, name, definition, include, exclude, position } = stored;
  const themeId = stored.themeId ?? null;
  return { id, studyId, themeId, name, definition, include, exclude, position };
}
