import { Migration } from '@mikro-orm/migrations';

export class Migration20261125190000_training extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table training_run
        -- the newest of these is the run in force
        add column in_force_since timestamptz,
        -- what was learnt from: two runs of the same fingerprint, words and seed are the same to the last bit
        add column fingerprint text not null default '',
        add column struck jsonb not null default '[]',
        add column scope text not null default '',
        -- open answers that could get no suggestions, so that nobody takes them as decided; null for none
        add column out_of_scope int[],
        add column confused jsonb not null default '[]',
        add column seconds real not null default 0,
        -- its suggestions, packed, so that it can be put in force again; only of the last few runs
        add column outcome bytea;
      update training_run set in_force_since = finished_at;
      alter table training_run alter column in_force_since set not null;
      create index on training_run (question_id, in_force_since desc, id desc);

      -- words without effect on a code's model, or on every model where no code is said
      create table struck_word (
        id uuid primary key,
        study_id int not null references study on delete cascade,
        code_id uuid,
        word text not null
      );
      create unique index on struck_word (study_id, word, code_id) nulls not distinct;
    `);
  }
}
