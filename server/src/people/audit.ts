import type { EntityManager } from '@mikro-orm/postgresql';
import { AuditEntity } from '../database/index.js';

/** What is noted of who did what: never what was written, or what something is called. */
export type AuditAction =
  | 'signed_in'
  | 'sign_in_refused'
  | 'entered_demo'
  | 'signed_out'
  | 'password_chosen'
  | 'password_given'
  | 'member_added'
  | 'member_removed'
  | 'study_archived'
  | 'study_unarchived'
  | 'study_deleted'
  | 'import_taken_back'
  | 'import_restored'
  | 'write_up_deleted'
  | 'write_up_restored'
  | 'exported';

export interface AuditNote {
  action: AuditAction;
  accountId: number | null;
  studyId?: number;
  /** Ids, kinds and addresses. */
  details?: Record<string, string | number>;
}

/** Notes that something was done. Within a change it is noted only if the change is kept. */
export const noteInAudit = (
  em: EntityManager,
  { action, accountId, studyId, details = {} }: AuditNote,
): Promise<unknown> =>
  em.insert(AuditEntity, { action, accountId, studyId: studyId ?? null, details });
