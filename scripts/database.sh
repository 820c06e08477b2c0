# Shared by the scripts that work with the database: which it is, and PostgreSQL's own tools.
export DATA_FOLDER=${DATA_FOLDER:-$PROJECT/.data}
BACKUP_FOLDER=${BACKUP_FOLDER:-$DATA_FOLDER/backups}
BACKUPS_KEPT=${BACKUPS_KEPT:-14}
PG_TOOLS=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1 || true)

# the database as libpq reads it from the environment: an address in a command line is seen by everybody on the machine
use_database() {
  local url=${DATABASE_URL:-$(PG_FOLDER=$DATA_FOLDER/postgres bash "$PROJECT/scripts/pg.sh" url)}
  eval "$(DATABASE_URL=$url node -e '
    const { hostname, port, username, password, pathname, searchParams } = new URL(process.env.DATABASE_URL);
    const quoted = (text) => "\x27" + decodeURIComponent(text).replaceAll("\x27", "\x27\\\x27\x27") + "\x27";
    const parts = { PGHOST: hostname, PGPORT: port || "5432", PGUSER: username, PGPASSWORD: password,
      PGDATABASE: pathname.slice(1), PGSSLMODE: searchParams.get("sslmode") || "prefer" };
    for (const [name, value] of Object.entries(parts)) console.log(`export ${name}=${quoted(value)}`);')"
}
