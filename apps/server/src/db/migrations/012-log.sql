-- What is written down of runs, at the machine or by the simulated one, and what was learnt from it. Rows are only added: a correction names
-- the row it takes the place of, taking over and taking back are rows too.
CREATE TABLE log_entries (
  id TEXT PRIMARY KEY,
  release_id TEXT NOT NULL REFERENCES releases (id),
  run_id TEXT REFERENCES runs (id),
  machine_id TEXT NOT NULL,
  kind TEXT NOT NULL,
  parts INTEGER NOT NULL,
  scrapped INTEGER NOT NULL,
  seconds REAL,
  dwell REAL NOT NULL,
  moves REAL NOT NULL,
  changes INTEGER NOT NULL,
  remark TEXT NOT NULL,
  replaces TEXT REFERENCES log_entries (id),
  at TEXT NOT NULL,
  device TEXT NOT NULL,
  person TEXT,
  who TEXT NOT NULL
);
CREATE INDEX log_by_release ON log_entries (release_id, at);
CREATE INDEX log_by_machine ON log_entries (machine_id, at);
CREATE TRIGGER log_stays BEFORE UPDATE ON log_entries BEGIN SELECT RAISE(ABORT, 'what was logged is corrected by another entry'); END;
CREATE TRIGGER log_is_kept BEFORE DELETE ON log_entries BEGIN SELECT RAISE(ABORT, 'what was logged is kept'); END;
CREATE TABLE learnt (
  n INTEGER PRIMARY KEY,
  machine_id TEXT NOT NULL,
  before TEXT NOT NULL,
  after TEXT NOT NULL,
  runs INTEGER NOT NULL,
  undoes INTEGER REFERENCES learnt (n),
  at TEXT NOT NULL,
  who TEXT NOT NULL
);
CREATE INDEX learnt_by_machine ON learnt (machine_id, n);
