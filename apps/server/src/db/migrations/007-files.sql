-- Files that jobs name, by the SHA-256 of their content; without one while they are still arriving. They lie in pieces, so that a large one
-- comes and goes without holding anybody up. `unnamed_since` is when nothing named them any more.
CREATE TABLE files (
  id INTEGER PRIMARY KEY,
  sha256 TEXT UNIQUE,
  size INTEGER NOT NULL,
  unnamed_since TEXT
);
CREATE TABLE file_pieces (
  file_id INTEGER NOT NULL REFERENCES files (id) ON DELETE CASCADE,
  n INTEGER NOT NULL,
  bytes BLOB NOT NULL,
  UNIQUE (file_id, n)
);

-- Which versions of jobs name which files; the current state of a job is one of them.
CREATE TABLE file_uses (
  version_id TEXT NOT NULL REFERENCES versions (id) ON DELETE CASCADE,
  sha256 TEXT NOT NULL,
  PRIMARY KEY (version_id, sha256)
) WITHOUT ROWID;
CREATE INDEX uses_by_file ON file_uses (sha256);
