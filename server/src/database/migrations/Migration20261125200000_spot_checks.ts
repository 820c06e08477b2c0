import { Migration } from '@mikro-orm/migrations';

export class Migration20261125200000_spot_checks extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      -- a random few of what was decided in bulk, read to measure how often that was right
      create table spot_check (
        id uuid primary key,
        study_id int not null references study on delete cascade,
        question_id int not null references question on delete cascade,
        code_id uuid not null,
        side text not null check (side in ('accepted', 'refused')),
        -- how many had been decided in bulk, and what share of them the model expected to mention the code
        drawn_from int not null check (drawn_from > 0),
        expected double precision not null,
        drawn_by int not null references account,
        drawn_at timestamptz not null
      );
      create index on spot_check (question_id, code_id);

      create table spot_check_answer (
        check_id uuid not null references spot_check on delete cascade,
        response_id int not null references response on delete cascade,
        verdict text check (verdict in ('applies', 'not', 'unsure')),
        primary key (check_id, response_id)
      );
      create index on spot_check_answer (response_id);

      alter table training_run
        -- by code: what its model said of settled answers that it had not seen, with the code and without it
        add column unseen jsonb not null default '{}',
        -- bulk decisions that the models, which did not learn from them, strongly contradict
        add column contradicted jsonb not null default '[]';
    `);
  }
}
