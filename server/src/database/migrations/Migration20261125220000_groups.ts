import { Migration } from '@mikro-orm/migrations';

export class Migration20261125220000_groups extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      -- a saved rule that picks respondents; "group" itself is a word of SQL
      create table saved_group (
        id uuid primary key,
        study_id int not null references study on delete cascade,
        name text not null,
        description text not null,
        rule jsonb not null,
        position int not null
      );
      create unique index on saved_group (study_id, lower(name));
      create index on respondent (import_id);

      -- the newest complete run of each question, or one that was put in force again
      create view run_in_force as
        select distinct on (question_id) * from training_run
        order by question_id, in_force_since desc, id desc;
    `);
  }
}
