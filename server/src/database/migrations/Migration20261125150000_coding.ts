import { duplicateHash } from '@yellow-thread/core/text';
import { Migration } from '@mikro-orm/migrations';

const BATCH = 5000;

export class Migration20261125150000_coding extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      alter table code
        add column archived boolean not null default false,
        -- ids of the questions that it applies to; null for all
        add column questions jsonb;

      alter table mention
        add column typical boolean not null default false,
        drop constraint mention_origin_check,
        add check (origin in ('hand', 'accepted', 'bulk', 'import', 'words'));

      -- codes gathered for a purpose
      create table bundle (
        id uuid primary key,
        study_id int not null references study on delete cascade,
        name text not null,
        position int not null
      );
      create unique index on bundle (study_id, lower(name));
      create table bundle_code (
        bundle_id uuid not null references bundle on delete cascade,
        code_id uuid not null references code deferrable,
        primary key (bundle_id, code_id)
      );
      create index on bundle_code (code_id);

      -- a code under one of a person's own keys
      create table pin (
        study_id int not null references study on delete cascade,
        account_id int not null references account on delete cascade,
        key int not null check (key between 1 and 9),
        -- of a code that may be gone, and may come back by undoing
        code_id uuid not null,
        primary key (study_id, account_id, key)
      );

      create table note (
        id uuid primary key,
        study_id int not null references study on delete cascade,
        response_id int references response on delete cascade,
        start int,
        "end" int,
        respondent_id int references respondent on delete cascade,
        code_id uuid references code deferrable,
        text text not null,
        unsure boolean not null,
        author_id int not null references account,
        created_at timestamptz not null,
        check (num_nonnulls(response_id, respondent_id, code_id) = 1),
        check ((start is null) = ("end" is null)),
        check (start is null or response_id is not null),
        check (start >= 0 and "end" > start)
      );
      create index on note (study_id);
      create index on note (response_id);
      create index on note (respondent_id);
      create index on note (code_id);

      -- where a line was parted or joined by hand
      create table line_cut (
        response_id int not null references response on delete cascade,
        at int not null check (at > 0),
        joined boolean not null,
        primary key (response_id, at)
      );

      -- what a change moves from one code to another is checked when all of it is done
      alter table code alter constraint code_study_id_theme_id_fkey deferrable;
      alter table mention alter constraint mention_code_id_fkey deferrable;
      -- what models said of a code that is merged or removed stays, in case that is undone
      alter table suggestion drop constraint suggestion_code_id_fkey;
      alter table review_line drop constraint review_line_code_id_fkey;
      create or replace view open_suggestion as
        select s.* from suggestion s
        where s.state = 'open'
          and exists (select 1 from code c where c.id = s.code_id)
          and not exists (select 1 from settlement t where t.response_id = s.response_id)
          and not exists (
            select 1 from mention m where m.response_id = s.response_id and m.code_id = s.code_id);

      alter table sample
        drop constraint sample_kind_check,
        add check (kind in ('random', 'stratified', 'most_telling')),
        add column variable_id int references variable on delete set null;

      -- how many were asked and answered: counted anew by what brings responses in or takes them back
      alter table question
        add column asked int not null default 0,
        add column answered int not null default 0;
      update question q set asked = n.asked, answered = n.answered
      from (select question_id, count(*) as asked, count(*) filter (where not no_answer) as answered
        from response group by question_id) n where n.question_id = q.id;

      -- the codes that a change is about
      alter table change add column codes uuid[] not null default '{}';

      -- answers of the same words have the same number
      alter table response add column same bigint;
      alter table import_before_response add column same bigint;
    `);
    await this.number('response', 'id');
    await this.number('import_before_response', 'response_id');
    await this.execute('alter table response alter column same set not null');
  }

  /** Numbers texts that were kept before there were such numbers. */
  private async number(table: string, key: string): Promise<void> {
    for (;;) {
      const texts = await this.execute(
        `select ${key} as key, text from ${table} where same is null and text is not null limit ${BATCH}`,
      );
      if (texts.length === 0) return;
      const hashes = texts.map((one) => `(${one['key']}, ${duplicateHash(String(one['text']))})`);
      await this.execute(
        `update ${table} t set same = h.same from (values ${hashes.join(',')}) as h (key, same)
         where t.${key} = h.key`,
      );
    }
  }
}
