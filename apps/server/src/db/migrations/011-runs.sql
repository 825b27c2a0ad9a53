-- What ran where: a run is a row that stays; what happens in it is added, and what its control remembers is all of it, so that it stands
-- where it stood when its power went.
CREATE TABLE runs (
  id TEXT PRIMARY KEY,
  release_id TEXT NOT NULL REFERENCES releases (id),
  job_id TEXT NOT NULL,
  setup_id TEXT NOT NULL,
  root TEXT NOT NULL,
  machine TEXT NOT NULL,
  kind TEXT NOT NULL,
  seed INTEGER NOT NULL,
  at TEXT NOT NULL,
  device TEXT NOT NULL,
  person TEXT,
  who TEXT NOT NULL
);
CREATE INDEX runs_by_job ON runs (job_id, at);
CREATE INDEX runs_by_release ON runs (release_id);
CREATE TRIGGER runs_stay BEFORE UPDATE ON runs BEGIN SELECT RAISE(ABORT, 'a run is never changed'); END;
CREATE TRIGGER runs_are_kept BEFORE DELETE ON runs BEGIN SELECT RAISE(ABORT, 'a run is kept'); END;

CREATE TABLE run_memories (
  run_id TEXT PRIMARY KEY REFERENCES runs (id),
  memory TEXT NOT NULL,
  view TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE TABLE run_events (
  n INTEGER PRIMARY KEY,
  run_id TEXT NOT NULL REFERENCES runs (id),
  seconds REAL NOT NULL,
  line INTEGER NOT NULL,
  what TEXT NOT NULL,
  words TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX events_by_run ON run_events (run_id, n);
CREATE TABLE run_streams (
  n INTEGER PRIMARY KEY,
  run_id TEXT NOT NULL REFERENCES runs (id),
  rows TEXT NOT NULL
);
CREATE INDEX streams_by_run ON run_streams (run_id, n);
