import { Migration } from '@mikro-orm/migrations';

/** What a run says of themes: which answers are likely about one, where its codes cannot be learnt. */
export class Migration20261126060000_themes extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table training_run add column themes jsonb not null default '[]';
      create or replace view run_in_force as
        select distinct on (question_id) * from training_run
        order by question_id, in_force_since desc, id desc;
    `);
  }
}
