import { Migration } from '@mikro-orm/migrations';

/** Vectors of texts by a sentence encoder, and the job that reads the texts of a study for them. */
export class Migration20261202100000_sentence_vectors extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table sentence_vector (
        study_id integer not null references study on delete cascade,
        encoder text not null,
        text_hash bytea not null,
        -- null for a text that the encoder does not read, such as one in another language
        vector bytea,
        primary key (study_id, encoder, text_hash)
      );
      alter table sentence_vector alter column vector set storage external;
      alter table training_run add column encoder text;
      alter table job drop constraint job_kind_check;
      alter table job add constraint job_kind_check
        check (kind in ('read', 'import', 'undo_import', 'restore_import', 'train', 'encode', 'delete_study'));
    `);
  }
}
