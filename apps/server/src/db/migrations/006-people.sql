-- Who works here. `pin` is a salted hash; wrong tries make the next one wait.
CREATE TABLE people (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  roles TEXT NOT NULL,
  pin TEXT,
  wrong INTEGER NOT NULL DEFAULT 0,
  waits_until TEXT,
  created_at TEXT NOT NULL,
  removed_at TEXT
);
