/** The database: one connection a process, WAL, foreign keys on, migrations in order. */
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { config } from '../config';

let connection: Database.Database | null = null;

export function database(): Database.Database {
  if (connection) return connection;
  mkdirSync(config.dataDir, { recursive: true });
  const db = new Database(join(config.dataDir, 'sphaera.db'));
  db.pragma('busy_timeout = 10000');
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = FULL');
  migrate(db);
  connection = db;
  return db;
}

/**
 * Changes whenever the database was written to, by this process or another; cheap to ask. Source: SQLite, PRAGMA
 * data_version, which counts the writes of other connections, and total_changes, which counts our own.
 */
export const databaseVersion = (): number =>
  (database().pragma('data_version', { simple: true }) as number) * 2 ** 32 +
  (prepared('SELECT total_changes() AS count').get() as { count: number }).count;

export function closeDatabase(): void {
  connection?.close();
  connection = null;
  statements.clear();
}

const statements = new Map<string, Database.Statement>();

/** A statement, prepared once a connection. */
export function prepared(sql: string): Database.Statement {
  const db = database();
  let statement = statements.get(sql);
  if (!statement) {
    statement = db.prepare(sql);
    statements.set(sql, statement);
  }
  return statement;
}

function migrate(db: Database.Database): void {
  const folder = join(config.root, 'src/server/store/migrations');
  // a migration may rebuild a table that others refer to; the setting has no effect within a transaction
  db.pragma('foreign_keys = OFF');
  // immediate, so that two processes starting together do not both migrate
  db.transaction(() => {
    const current = db.pragma('user_version', { simple: true }) as number;
    for (const file of readdirSync(folder).sort()) {
      const number = Number.parseInt(file, 10);
      if (number <= current) continue;
      db.exec(readFileSync(join(folder, file), 'utf8'));
      db.pragma(`user_version = ${number}`);
    }
    const broken = db.pragma('foreign_key_check') as unknown[];
    if (broken.length > 0) throw new Error(`migrate: ${broken.length} rows refer to rows that are not there`);
  }).immediate();
  db.pragma('foreign_keys = ON');
}
