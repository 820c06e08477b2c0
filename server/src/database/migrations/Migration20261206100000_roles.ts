import { Migration } from '@mikro-orm/migrations';

/** What each member may do, links that let people in, and answers that are assigned to a coder. */
export class Migration20261206100000_roles extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      -- whoever is a member could do everything so far
      alter table membership add column role text not null default 'owner'
        check (role in ('owner', 'researcher', 'coder', 'reader'));
      alter table membership alter column role drop default;

      -- whether readers see contact details and names masked, and no respondent's id
      alter table study add column masks_for_readers boolean not null default false;

      create table invitation (
        id uuid primary key,
        study_id integer not null references study on delete cascade,
        -- the link is known to whoever made it and to whoever was given it
        token_hash text not null unique,
        name text not null,
        -- null where a password is reset
        role text check (role in ('owner', 'researcher', 'coder', 'reader')),
        account_id integer references account on delete cascade,
        made_by integer not null references account on delete cascade,
        made_at timestamptz not null default now(),
        expires_at timestamptz not null,
        check ((role is null) <> (account_id is null))
      );
      create index invitation_study on invitation (study_id);

      create table assignment (
        id uuid primary key,
        study_id integer not null references study on delete cascade,
        question_id integer not null references question on delete cascade,
        coder_id integer not null references account,
        response_ids jsonb not null,
        assigned_by integer not null references account,
        assigned_at timestamptz not null
      );
      create index assignment_coder on assignment (study_id, coder_id);

      -- what stands in the history and is reversed otherwise, such as who is in the team
      alter table change add column undoable boolean not null default true;
    `);
  }
}
