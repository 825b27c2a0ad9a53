-- What the shop itself keeps: its pass phrase (hashed) and the secret that signs devices.
CREATE TABLE settings (name TEXT PRIMARY KEY, value TEXT NOT NULL);
-- Devices that were let in, by the name somebody gave them.
CREATE TABLE devices (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  created_at TEXT NOT NULL,
  seen_at TEXT NOT NULL,
  revoked_at TEXT
);
