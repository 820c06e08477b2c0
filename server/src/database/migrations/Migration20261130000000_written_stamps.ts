import { Migration } from '@mikro-orm/migrations';

/**
 * What was written is told by random stamps, one a transaction, no longer by the transactions' numbers: a cluster that a
 * dump was restored into hands out the same numbers again, and what was written there would not show. The sum of the
 * stamps that are seen stands for all of them, so that they may be added up into one row at any time.
 */
export class Migration20261130000000_written_stamps extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table written add column stamp bigint;
      update written set stamp = ('x' || left(md5(gen_random_uuid()::text), 12))::bit(48)::bigint;
      alter table written drop constraint written_pkey, drop column xact,
        alter column stamp set not null;
      create or replace function note_written() returns trigger language plpgsql as $$
      declare
        noted constant text := 'yellow_thread.written_' || tg_argv[0];
      begin
        -- once a transaction; one that is rolled back, wholly or to a savepoint, forgets both
        if coalesce(current_setting(noted, true), '') = '' then
          insert into written (what, stamp)
            values (tg_argv[0], ('x' || left(md5(gen_random_uuid()::text), 12))::bit(48)::bigint);
          perform set_config(noted, 'yes', true);
        end if;
        return null;
      end $$;
    `);
  }
}
