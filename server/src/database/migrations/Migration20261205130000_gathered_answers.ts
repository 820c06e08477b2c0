import { Migration } from '@mikro-orm/migrations';

/** What a job gathered of many answers last, for whichever server is asked. */
export class Migration20261205130000_gathered_answers extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table gathered_answers (
        question_id integer primary key references question on delete cascade,
        -- of which answers, as they were
        asked text not null,
        clusters jsonb not null
      );

      alter table job drop constraint job_kind_check;
      alter table job add constraint job_kind_check check (kind in (
        'read', 'import', 'undo_import', 'restore_import', 'train', 'encode', 'train_tone', 'cluster',
        'delete_study'));
    `);
  }
}
