import { Migration } from '@mikro-orm/migrations';

/** Who gets in, and what is noted of it. */
export class Migration20261130010000_access extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      -- wrong tries by address, by account, and by both; \`known\`: an address that an account was entered from.
      -- Names are kept as digests: what is typed there may be a password.
      create table sign_in_try (
        kind text not null check (kind in ('address', 'account', 'both', 'known')),
        key text not null,
        failures int not null,
        last_at timestamptz not null default now(),
        primary key (kind, key)
      );
      alter table session add column started_at timestamptz not null default now();

      -- who did what, when: no words of answers, no names of studies
      create table audit (
        id bigint generated always as identity primary key,
        at timestamptz not null default now(),
        action text not null,
        account_id int references account on delete set null,
        study_id int,
        details jsonb not null default '{}'
      );
      create index on audit (at);
    `);
  }
}
