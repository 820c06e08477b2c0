import { Migration } from '@mikro-orm/migrations';

/**
 * What a run's models, none of which saw the answer, say of every answer, and what was found on the random sample: so
 * that shares can be estimated of any group at any time after. All lists are packed, little end first.
 */
export class Migration20261126050000_estimates extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table run_sample (
        run_id int primary key references training_run on delete cascade,
        respondents bytea not null,
        sampled bytea not null
      );
      create table run_prediction (
        run_id int not null references run_sample on delete cascade,
        code_id uuid not null,
        mentioned bytea not null,
        predicted bytea,
        primary key (run_id, code_id)
      );
      alter table run_sample alter column respondents set storage external;
      alter table run_prediction alter column predicted set storage external;
    `);
  }
}
