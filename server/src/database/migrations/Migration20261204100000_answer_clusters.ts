import { Migration } from '@mikro-orm/migrations';

/** Answers that somebody decided about together: adopted as a code, to be looked at later, or no theme. */
export class Migration20261204100000_answer_clusters extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table answer_cluster (
        id uuid primary key,
        study_id integer not null references study on delete cascade,
        question_id integer not null references question on delete cascade,
        state text not null check (state in ('adopted', 'later', 'dismissed')),
        name text not null,
        -- a list, and no rows: of answers that are gone since nothing is shown
        response_ids jsonb not null
      );
      create index on answer_cluster (question_id);
      create index on answer_cluster (study_id);
    `);
  }
}
