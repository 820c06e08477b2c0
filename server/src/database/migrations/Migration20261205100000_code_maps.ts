import { Migration } from '@mikro-orm/migrations';

/** Codes and themes laid out on maps, with relations between them and answers pinned to both. */
export class Migration20261205100000_code_maps extends Migration {
  override async up(): Promise<void> {
    await this.execute(`
      create table code_map (
        id uuid primary key,
        study_id integer not null references study on delete cascade,
        name text not null,
        position integer not null
      );
      create unique index on code_map (study_id, lower(name));

      -- no cascades: what somebody else hung on a node meanwhile keeps it from being undone
      create table map_node (
        id uuid primary key,
        map_id uuid not null references code_map,
        -- without foreign keys: a code that comes back by undo is where it was
        code_id uuid,
        theme_id uuid,
        x integer not null,
        y integer not null,
        check ((code_id is null) <> (theme_id is null)),
        unique (map_id, code_id),
        unique (map_id, theme_id)
      );
      create table map_relation (
        id uuid primary key,
        map_id uuid not null references code_map,
        from_node uuid not null references map_node,
        to_node uuid not null references map_node,
        label text not null,
        directed boolean not null,
        note text not null,
        check (from_node <> to_node)
      );
      create index on map_relation (map_id);
      create index on map_relation (from_node);
      create index on map_relation (to_node);
      create table map_pin (
        id uuid primary key,
        map_id uuid not null references code_map,
        node_id uuid references map_node,
        relation_id uuid references map_relation,
        response_id integer not null references response on delete cascade,
        start integer,
        "end" integer,
        check ((node_id is null) <> (relation_id is null)),
        check ((start is null) = ("end" is null))
      );
      create index on map_pin (map_id);
      create index on map_pin (node_id);
      create index on map_pin (relation_id);
      create index on map_pin (response_id);
    `);
  }
}
