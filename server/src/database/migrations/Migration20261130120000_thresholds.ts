import { Migration } from '@mikro-orm/migrations';

/** What was called a line, from which suggestions are taken as right, is a threshold. */
export class Migration20261130120000_thresholds extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table review_line rename to review_threshold;
      alter table review_threshold rename column line to threshold;
      update training_run set codes = (
        select coalesce(jsonb_agg(
          case when jsonb_exists(code.value, 'line')
            then code.value - 'line' || jsonb_build_object('threshold', code.value->'line')
            else code.value end order by code.ordinality), '[]')
        from jsonb_array_elements(codes) with ordinality as code)
      where codes is not null;
    `);
  }
}
