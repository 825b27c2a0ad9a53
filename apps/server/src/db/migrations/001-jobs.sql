CREATE TABLE jobs (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  document TEXT NOT NULL,
  thumbnail TEXT NOT NULL,
  version INTEGER NOT NULL,
  created_at TEXT NOT NULL,
  updated_at TEXT NOT NULL,
  deleted_at TEXT
);

CREATE INDEX jobs_by_update ON jobs (deleted_at, updated_at DESC);

-- A save that came too late: kept, so that neither version is lost.
CREATE TABLE refused_saves (
  id TEXT PRIMARY KEY,
  job_id TEXT NOT NULL REFERENCES jobs (id),
  base_version INTEGER NOT NULL,
  document TEXT NOT NULL,
  refused_at TEXT NOT NULL
);
