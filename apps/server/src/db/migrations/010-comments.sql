-- What is asked and answered at the operations of a job. Rows are only added; a device that sends one twice has said it once.
CREATE TABLE comments (
  n INTEGER PRIMARY KEY,
  id TEXT NOT NULL UNIQUE,
  job_id TEXT NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
  operation TEXT NOT NULL,
  text TEXT NOT NULL,
  who TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX comments_by_job ON comments (job_id, n);
