import { Migration } from '@mikro-orm/migrations';

/** How a question is finished: code by code, with suggestions in view, or by the models with a check. */
export class Migration20261129200000_finish extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      -- settled with the models' suggestions in view: such an answer is in no random sample and no agreement
      alter table settlement add column assisted boolean not null default false;

      -- a code that is decided for every answer: where it is not mentioned, it does not apply
      create table code_closing (
        study_id int not null references study on delete cascade,
        question_id int not null references question on delete cascade,
        -- of a code that may be gone, and may come back by undoing
        code_id uuid not null,
        how text not null check (how in ('suggestions', 'search')),
        expected double precision not null check (expected >= 0),
        -- answers that came later, or were corrected since, are open again
        last_response_id int not null,
        closed_by int not null references account,
        closed_at timestamptz not null,
        primary key (question_id, code_id)
      );

      alter table sample
        drop constraint sample_kind_check,
        add check (kind in ('random', 'stratified', 'most_telling', 'check'));

      -- what is open of a question is left to the models of a run
      create table model_decision (
        study_id int not null references study on delete cascade,
        question_id int primary key references question on delete cascade,
        run_id int not null references training_run on delete cascade,
        relied jsonb not null,
        last_response_id int not null,
        sample_id int references sample on delete set null,
        decided_by int not null references account,
        decided_at timestamptz not null
      );
    `);
  }
}
