/** The database: one connection a process, WAL, foreign keys on, migrations in order. */
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import Database from 'better-sqlite3';
import { storageTroubleOf } from '../../core/result/storage-trouble';
import { config } from '../config';

let connection: Database.Database | null = null;

export function database(): Database.Database {
  if (connection) return connection;
  mkdirSync(config.dataDir, { recursive: true });
  const db = new Database(join(config.dataDir, 'sphaera.db'));
  try {
    db.pragma('busy_timeout = 10000');
    db.pragma('journal_mode = WAL');
    db.pragma('synchronous = FULL');
    migrate(db);
    db.pragma(`busy_timeout = ${config.lockPatienceMs}`);
  } catch (error) {
    db.close();
    throw error;
  }
  connection = db;
  return db;
}

const LOCK_LOOK_MS = 50;

/** Waits until no other process writes, without holding up this one. False when that takes too long. */
export async function untilWritable(patience_ms = 10_000): Promise<boolean> {
  for (const end = Date.now() + patience_ms; ; await sleep(LOCK_LOOK_MS)) {
    if (isWritable()) return true;
    if (Date.now() > end) return false;
  }
}

function isWritable(): boolean {
  const db = database();
  db.pragma('busy_timeout = 0');
  try {
    db.exec('BEGIN IMMEDIATE; ROLLBACK');
    return true;
  } catch (error) {
    if (storageTroubleOf(error) === 'locked') return false;
    throw error;
  } finally {
    db.pragma(`busy_timeout = ${config.lockPatienceMs}`);
  }
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
