import { Migration } from '@mikro-orm/migrations';

/** Settled answers coded once more by somebody who does not see how they were coded. */
export class Migration20261126070000_second_readings extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table second_reading (
        id uuid primary key,
        study_id int not null references study on delete cascade,
        question_id int not null references question on delete cascade,
        reader_id int not null references account,
        -- who had settled its answers by then: a list of accounts
        first_coders jsonb not null,
        drawn_from int not null check (drawn_from > 0),
        drawn_by int not null references account,
        drawn_at timestamptz not null
      );
      create index on second_reading (question_id);

      create table second_reading_answer (
        reading_id uuid not null references second_reading on delete cascade,
        response_id int not null references response on delete cascade,
        -- lists of codes: kept as they were given, also when a code is removed from the codebook later
        first_codes jsonb not null,
        second_codes jsonb,
        verdicts jsonb not null default '{}',
        primary key (reading_id, response_id)
      );
      create index on second_reading_answer (response_id);
    `);
  }
}
