-- Programs that were handed out or wait to be, as bytes, with all they stood on. A release is kept whatever becomes of its job, and never
-- changed: what is said of it later stands in tables of its own, to which rows are only added.
CREATE TABLE releases (
  id TEXT PRIMARY KEY,
  job_id TEXT NOT NULL,
  number INTEGER NOT NULL,
  setup_id TEXT NOT NULL,
  version INTEGER NOT NULL,
  at TEXT NOT NULL,
  device TEXT NOT NULL,
  person TEXT,
  who TEXT NOT NULL,
  needed INTEGER NOT NULL,
  root TEXT NOT NULL,
  parts TEXT NOT NULL,
  job_name TEXT NOT NULL,
  setup_name TEXT NOT NULL,
  machine TEXT NOT NULL,
  seconds REAL NOT NULL,
  to_load TEXT NOT NULL,
  body TEXT NOT NULL,
  UNIQUE (job_id, number)
);
CREATE INDEX releases_by_root ON releases (root);
CREATE TABLE release_programs (
  release_id TEXT NOT NULL REFERENCES releases (id),
  n INTEGER NOT NULL,
  file_name TEXT NOT NULL,
  bytes BLOB NOT NULL,
  PRIMARY KEY (release_id, n)
);
CREATE TABLE release_files (
  release_id TEXT NOT NULL REFERENCES releases (id),
  sha256 TEXT NOT NULL,
  PRIMARY KEY (release_id, sha256)
) WITHOUT ROWID;
CREATE TRIGGER releases_stay BEFORE UPDATE ON releases BEGIN SELECT RAISE(ABORT, 'a release is never changed'); END;
CREATE TRIGGER releases_are_kept BEFORE DELETE ON releases BEGIN SELECT RAISE(ABORT, 'a release is kept'); END;
CREATE TRIGGER programs_stay BEFORE UPDATE ON release_programs BEGIN SELECT RAISE(ABORT, 'a release is never changed'); END;
CREATE TRIGGER programs_are_kept BEFORE DELETE ON release_programs BEGIN SELECT RAISE(ABORT, 'a release is kept'); END;

-- What a release's programs are made from, as a hash: states of the job that give these very bytes.
CREATE TABLE release_makings (
  release_id TEXT NOT NULL REFERENCES releases (id),
  making TEXT NOT NULL,
  PRIMARY KEY (release_id, making)
) WITHOUT ROWID;
CREATE TABLE release_answers (
  n INTEGER PRIMARY KEY,
  release_id TEXT NOT NULL REFERENCES releases (id),
  answer TEXT NOT NULL,
  root TEXT NOT NULL,
  remark TEXT NOT NULL,
  checks TEXT NOT NULL,
  person TEXT,
  who TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX answers_by_release ON release_answers (release_id, n);
CREATE TABLE release_ticks (
  n INTEGER PRIMARY KEY,
  release_id TEXT NOT NULL REFERENCES releases (id),
  item TEXT NOT NULL,
  is_so INTEGER NOT NULL,
  who TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX ticks_by_release ON release_ticks (release_id, n);
CREATE TABLE release_sizes (
  n INTEGER PRIMARY KEY,
  release_id TEXT NOT NULL REFERENCES releases (id),
  size TEXT NOT NULL,
  measured REAL NOT NULL,
  who TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX sizes_by_release ON release_sizes (release_id, n);

-- Whether the programs of a job are handed out only once somebody has approved them, whatever holds for the shop.
ALTER TABLE jobs ADD COLUMN needs_approval INTEGER NOT NULL DEFAULT 0;
