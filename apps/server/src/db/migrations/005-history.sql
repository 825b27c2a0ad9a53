-- Short columns first: a list of jobs never walks through their documents. `words` is nothing until somebody has read the document;
-- `content` is a key of everything a program depends on, beside it what was last proved and released.
CREATE TABLE listed (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  version INTEGER NOT NULL,
  created_at TEXT NOT NULL,
  updated_at TEXT NOT NULL,
  deleted_at TEXT,
  archived_at TEXT,
  format INTEGER,
  words TEXT,
  material TEXT NOT NULL DEFAULT '',
  machine TEXT NOT NULL DEFAULT '',
  customer_number TEXT NOT NULL DEFAULT '',
  tags TEXT NOT NULL DEFAULT '[]',
  content TEXT NOT NULL DEFAULT '',
  setups INTEGER NOT NULL DEFAULT 0,
  standing_content TEXT,
  standing TEXT NOT NULL DEFAULT '{}',
  proved INTEGER NOT NULL DEFAULT 0,
  stops INTEGER NOT NULL DEFAULT 0,
  seconds REAL NOT NULL DEFAULT 0,
  released_content TEXT,
  thumbnail TEXT NOT NULL,
  document TEXT NOT NULL
);

INSERT INTO listed (id, name, version, created_at, updated_at, deleted_at, format, thumbnail, document)
SELECT id, name, version, created_at, updated_at, deleted_at, format, thumbnail, document FROM jobs;

CREATE TABLE late AS SELECT * FROM refused_saves;
DROP TABLE refused_saves;
DROP TABLE jobs;
ALTER TABLE listed RENAME TO jobs;
CREATE INDEX jobs_by_update ON jobs (deleted_at, updated_at DESC);

-- Every job as it once was; the newest that was taken is the current state. Saves that came too late are among them.
CREATE TABLE versions (
  id TEXT PRIMARY KEY,
  job_id TEXT NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
  version INTEGER NOT NULL,
  device TEXT NOT NULL,
  who TEXT NOT NULL,
  began_at TEXT NOT NULL,
  saved_at TEXT NOT NULL,
  refused INTEGER NOT NULL DEFAULT 0,
  released_at TEXT,
  format INTEGER,
  document TEXT NOT NULL
);
CREATE INDEX versions_by_job ON versions (job_id, saved_at DESC);

INSERT INTO versions (id, job_id, version, device, who, began_at, saved_at, refused, format, document)
SELECT lower(hex(randomblob(16))), id, version, '', '', updated_at, updated_at, 0, format, document FROM jobs
UNION ALL
SELECT id, job_id, base_version, '', '', refused_at, refused_at, 1, format, document FROM late;
DROP TABLE late;
