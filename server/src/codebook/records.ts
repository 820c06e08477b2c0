import type { Code, Theme } from '@yellow-thread/contract';
import type { EntityManager } from '@mikro-orm/postgresql';
import {
  asRecord,
  CodeEntity,
  findMentions,
  findNotes,
  ThemeEntity,
  type CodeRow,
  type ThemeRow,
} from '../database/index.js';
import { problems } from '../wording/problems.js';

/** A stored code as the record that a change holds. */
export const asCode = (stored: CodeRow): Code => asRecord('code', stored);

const asTheme = (stored: ThemeRow): Theme => asRecord('theme', stored);

/** @throws Problem not_found */
export async function findCode(em: EntityManager, studyId: number, id: string): Promise<Code> {
  const found = await em.findOne(CodeEntity, { id, studyId });
  if (!found) throw problems.notFound('code');
  return asCode(found);
}

/** @throws Problem not_found */
export async function findTheme(em: EntityManager, studyId: number, id: string): Promise<Theme> {
  const theme = await em.findOne(ThemeEntity, { id, studyId });
  if (!theme) throw problems.notFound('theme');
  return asTheme(theme);
}

/** Themes of a study in order. */
export async function themesOf(em: EntityManager, studyId: number): Promise<Theme[]> {
  const found = await em.find(ThemeEntity, { studyId }, { orderBy: { position: 1, name: 1 } });
  return found.map(asTheme);
}

/** Codes of a study in order. */
export async function codesOf(em: EntityManager, studyId: number): Promise<Code[]> {
  const found = await em.find(CodeEntity, { studyId }, { orderBy: { position: 1, name: 1 } });
  return found.map(asCode);
}

export const mentionsOf = (em: EntityManager, codeIds: readonly string[]) =>
  findMentions(em, 'm.code_id = any(:codeIds::uuid[])', { codeIds });

export const notesOf = (em: EntityManager, codeIds: readonly string[]) =>
  findNotes(em, 'n.code_id = any(:codeIds::uuid[])', { codeIds });
