import { Migration } from '@mikro-orm/migrations';

/** A change is only ever read whole: as text it is written several times as fast as taken apart. */
export class Migration20261126040000_changes_as_text extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table change add column touched jsonb not null default '{}';
      update change set touched = (
        select coalesce(jsonb_object_agg(t.key, (
          select sum(jsonb_array_length(part.value))::int from jsonb_each(t.value) part)), '{}')
        from jsonb_each(diff) t);
      alter table change alter column diff type json using diff::json;
      alter table change alter column diff set compression lz4;
      alter table change alter column touched drop default;
    `);
  }
}
